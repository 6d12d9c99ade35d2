import type { Drawing, Shape } from "../../drawing";
import { SMALLEST_TEXT, type Loom, type LoomBox, type LoomPin, type LoomTag } from "./types";

function pinShapes(p: LoomPin): Shape[] {
  const out = p.side === "left" ? 6 : -6;
  const ink = p.used ? "ink" : "soft";
  const paint = { fill: p.used ? ("ink" as const) : ("paper" as const), stroke: ink as "ink", width: 0.8 };
  return [
    // Pin 1 is square, as its pad is.
    p.first
      ? { kind: "rect", x: p.x - 3, y: p.y - 3, w: 6, h: 6, ...paint }
      : { kind: "circle", x: p.x, y: p.y, r: 2.4, ...paint },
    ...(p.label
      ? [
          {
            kind: "text" as const,
            x: p.x + out,
            y: p.y + 3.5,
            text: p.label,
            size: 9.5,
            anchor: p.side === "left" ? ("start" as const) : ("end" as const),
            fill: ink as "ink",
          },
        ]
      : []),
  ];
}

function boxShapes(b: LoomBox): Shape[] {
  const line = (text: string, y: number, size: number, rest: object = {}): Shape => ({
    kind: "text",
    x: b.x + b.w / 2,
    y: b.y + y,
    text,
    size,
    anchor: "middle",
    ...rest,
  });
  return [
    {
      kind: "rect",
      x: b.x,
      y: b.y,
      w: b.w,
      h: b.h,
      fill: "paper",
      stroke: "ink",
      width: 1,
      ...(b.kind === "companion" && { dash: [4, 2] }),
      of: b.ref,
    },
    ...(b.inline
      ? [line(b.ref, 11, 9, { bold: true }), line(b.name, b.h - 4, SMALLEST_TEXT)]
      : [line(b.title, 13, 11, { bold: true }), line(b.name, 24, SMALLEST_TEXT, { fill: "soft" })]),
    ...b.pins.flatMap(pinShapes),
  ];
}

/** A name at a pin; a flag is where the wire ends: what stands on it is the rail or splice to go to. */
function tagShapes(t: LoomTag): Shape[] {
  const s = t.side === "left" ? -1 : 1;
  const anchor = t.side === "left" ? ("end" as const) : ("start" as const);
  if (!t.flag) return [{ kind: "text", x: t.x + s * 5, y: t.y - t.rise, text: t.text, size: SMALLEST_TEXT, anchor }];
  return [
    {
      kind: "path",
      d: `M${t.x} ${t.y}h${s * 10}m0 -5v10m${s * 2.5} -10v10`,
      stroke: { wire: t.colour },
      width: 1.6,
      dash: [],
    },
    { kind: "text", x: t.x + s * 16, y: t.y - t.rise, text: t.text, size: SMALLEST_TEXT, anchor },
  ];
}

/** The loom as a line drawing: wires by colour, pattern and net name, parts over them. */
export function loomDrawing(l: Loom): Drawing {
  return {
    x: 0,
    y: 0,
    width: l.width,
    height: l.height,
    shapes: [
      ...l.cables.map((k): Shape => ({ kind: "path", d: k.path, stroke: "soft", width: 4, opacity: 0.55 })),
      ...l.nets.flatMap((n): Shape[] => [
        ...n.strands.map((s): Shape => ({
          kind: "path",
          d: s.path,
          stroke: { wire: s.colour },
          width: 1.6,
          of: n.name,
        })),
        ...n.dots.map(([x, y]): Shape => ({ kind: "circle", x, y, r: 2.6, fill: { wire: n.colour } })),
      ]),
      ...l.tags.flatMap(tagShapes),
      ...l.boxes.flatMap(boxShapes),
    ],
  };
}
