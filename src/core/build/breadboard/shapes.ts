import {
  nameBox,
  NameRoom,
  nameWidth,
  placesBeside,
  placesInside,
  type Box,
  type Drawing,
  type Shape,
} from "../../drawing";
import type { Circuit } from "../../circuit";
import { wireColour } from "../colours";
import { valueOf } from "../names";
import type { Layout, PlacedPart } from "./layout";
import {
  BOARD_STEP,
  holeAt,
  LETTER_X,
  LETTERS,
  PITCH_MM,
  RAIL_X,
  railRow,
  readHole,
  SIZES,
  type Half,
  type Pole,
  type SizeId,
} from "./sizes";

type Point = { x: number; y: number };

const HOLE = 0.32;
/** Type of pin names. */
const PIN = 0.66;
/** Room for the names at the leads. */
const LABEL = 6;
const TOP = 2.2;
const LABEL_STEP = 1.05;

const text = (x: number, y: number, t: string, size: number, rest: object = {}): Shape => ({
  kind: "text",
  x,
  y,
  text: t,
  size,
  ...rest,
});
const square = (x: number, y: number, s: number) => `M${x - s / 2} ${y - s / 2}h${s}v${s}h${-s}z`;

function boardShapes(size: SizeId, board: number, railNames: Map<string, string>): Shape[] {
  const { rows, railHoles } = SIZES[size];
  const from = board * BOARD_STEP;
  const [left, right] = railHoles ? [-5, 16] : [-1.6, 12.6];
  const holes: string[] = [];
  for (const half of ["left", "right"] as const)
    for (const l of LETTERS[half]) for (let r = 1; r <= rows; r++) holes.push(square(from + LETTER_X[l]!, r, HOLE));
  const out: Shape[] = [
    { kind: "rect", x: from + left, y: 0, w: right - left, h: rows + 1, stroke: "ink", width: 0.08, fill: "paper" },
    { kind: "rect", x: from + 4.9, y: 0.3, w: 1.2, h: rows + 0.4, fill: "wash" },
  ];
  for (const l of Object.keys(LETTER_X))
    for (const y of [0.55, rows + 0.85])
      out.push(text(from + LETTER_X[l]!, y, l, 0.7, { anchor: "middle", fill: "soft" }));
  for (let r = 1; r <= rows; r++)
    if (r === 1 || r % 5 === 0)
      for (const [x, anchor] of [
        [-0.6, "end"],
        [11.6, "start"],
      ] as const)
        out.push(text(from + x, r + 0.25, String(r), 0.7, { anchor, fill: "soft" }));
  if (railHoles)
    for (const half of ["left", "right"] as const)
      for (const pole of ["+", "-"] as const) {
        const x = from + RAIL_X[`${half}${pole}`];
        for (let n = 1; n <= railHoles; n++) holes.push(square(x, railRow(size, n), HOLE));
        const beside = x + (x < from ? (pole === "-" ? -0.5 : 0.5) : pole === "-" ? 0.5 : -0.5);
        out.push({
          kind: "path",
          d: `M${beside} 1V${rows}`,
          stroke: "ink",
          width: 0.07,
          ...(pole === "-" && { dash: [0.5, 0.25] }),
        });
        out.push(text(x, 0.7, pole === "-" ? "−" : "+", 0.9, { anchor: "middle", bold: true }));
        const name = railNames.get(`${half}${pole}`);
        if (name) out.push(text(x + 0.25, -0.25, name, 0.75, { turn: -60, bold: true }));
      }
  out.push({ kind: "path", d: holes.join(""), fill: "soft" });
  if (board) out.push(text(from + 5.5, -0.6, `board ${board + 1}`, 0.9, { anchor: "middle", bold: true }));
  return out;
}

const holePoint = (l: Layout, hole: string): Point => {
  const h = readHole(hole, l.sizes)!;
  return holeAt(h, l.sizes[h.board]!);
};

interface Named {
  ref: string;
  label: string;
  value: string;
  usb: "top" | "bottom" | null;
  /** What is printed on its body: a ring at one leg, or a can with its plus and minus. */
  mark: "ring" | "can" | null;
}

/** The ring of a diode lies at its cathode. */
const RING = "K";
const PLUS = "+";

/** A can stands over its legs: round, a stripe at minus, a plus at the other. */
function canShapes(b: Box, plus: Point, minus: Point, ref: string): Shape[] {
  const [cx, cy] = [(b.x1 + b.x2) / 2, (b.y1 + b.y2) / 2];
  const r = Math.max(0.55, Math.min(b.x2 - b.x1, b.y2 - b.y1) / 2);
  const long = Math.hypot(minus.x - plus.x, minus.y - plus.y) || 1;
  const [ux, uy] = [(minus.x - plus.x) / long, (minus.y - plus.y) / long];
  // A chord at three quarters of the way to minus, filled as printed on the can.
  const [d, half] = [r * 0.72, r * Math.sqrt(1 - 0.72 ** 2)];
  const [ax, ay] = [cx + ux * d - uy * half, cy + uy * d + ux * half];
  const [bx, by] = [cx + ux * d + uy * half, cy + uy * d - ux * half];
  return [
    { kind: "circle", x: cx, y: cy, r, fill: "paper", stroke: "ink", width: 0.1, opacity: 0.93, of: ref },
    { kind: "path", d: `M${ax} ${ay}A${r} ${r} 0 0 0 ${bx} ${by}Z`, fill: "ink" },
    text(cx - ux * r * 0.68, cy - uy * r * 0.68 + 0.25, "+", 0.75, { anchor: "middle", bold: true }),
  ];
}

function partShapes(l: Layout, part: PlacedPart, n: Named): Shape[] {
  const pins = part.holes.map((h) => ({ ...h, ...holePoint(l, h.hole) }));
  const blind = part.blind.map((h) => holePoint(l, h));
  const dots: Shape = {
    kind: "path",
    d: [...pins, ...blind].map((p) => square(p.x, p.y, 0.5)).join(""),
    fill: "ink",
    of: n.ref,
  };
  const b = part.body!;
  if (part.lying) {
    const [p, q] = pins as [(typeof pins)[0], (typeof pins)[0]];
    const [mx, my] = [(p.x + q.x) / 2, (p.y + q.y) / 2];
    const long = Math.hypot(p.x - q.x, p.y - q.y) || 1;
    const [ux, uy] = [(q.x - p.x) / long, (q.y - p.y) / long];
    const half = Math.min(1.7, long / 2 - 0.3);
    if (n.mark === "can") {
      const [plus, minus] = p.pin === PLUS ? [p, q] : [q, p];
      return [dots, ...canShapes(b, plus, minus, n.ref)];
    }
    // Towards the leg with the ring.
    const to = n.mark === "ring" ? (p.pin === RING ? -1 : 1) * (half - 0.35) : 0;
    return [
      { kind: "path", d: `M${p.x} ${p.y}L${q.x} ${q.y}`, stroke: "ink", width: 0.12 },
      {
        kind: "path",
        d: `M${mx - ux * half} ${my - uy * half}L${mx + ux * half} ${my + uy * half}`,
        stroke: "ink",
        width: 0.95,
        of: n.ref,
      },
      {
        kind: "path",
        d: `M${mx - ux * (half - 0.1)} ${my - uy * (half - 0.1)}L${mx + ux * (half - 0.1)} ${my + uy * (half - 0.1)}`,
        stroke: "paper",
        width: 0.75,
      },
      ...(to
        ? [
            {
              kind: "path" as const,
              d: `M${mx + ux * (to - 0.12)} ${my + uy * (to - 0.12)}L${mx + ux * (to + 0.12)} ${my + uy * (to + 0.12)}`,
              stroke: "ink" as const,
              width: 0.95,
            },
          ]
        : []),
      dots,
    ];
  }
  const out: Shape[] = [
    {
      kind: "rect",
      x: b.x1,
      y: b.y1,
      w: b.x2 - b.x1,
      h: b.y2 - b.y1,
      fill: "paper",
      stroke: "ink",
      width: 0.1,
      opacity: 0.93,
      of: n.ref,
    },
    dots,
  ];
  const middle = (b.x1 + b.x2) / 2;
  if (n.usb)
    out.push({
      kind: "rect",
      x: middle - 1.4,
      y: n.usb === "top" ? b.y1 - 0.6 : b.y2 - 0.8,
      w: 2.8,
      h: 1.4,
      stroke: "ink",
      fill: "paper",
      width: 0.1,
    });
  const narrow = b.x2 - b.x1 < 2;
  // Pin names inside the body, beside their pin; small bodies have them at the side.
  for (const p of pins) {
    const inward = p.x < middle ? 1 : -1;
    const label = p.pin.replace(/^(.+)\.\d+$/, "$1");
    if (narrow) out.push(text(p.x + 0.4, p.y + 0.2, label, PIN));
    else out.push(text(p.x + inward * 0.45, p.y + 0.22, label, PIN, { anchor: inward > 0 ? "start" : "end" }));
  }
  return out;
}

const NAME = 0.78;
/** Mean width of a bold letter, and the step from line to line, for one unit of size. */
const LETTER_W = 0.62;
const LINE_H = 1.2;
const lengthOf = (t: string, size: number) => t.length * size * LETTER_W;

/** A name broken at its blanks into lines of this length; null when a word is longer. */
function broken(name: string, room: number): string[] | null {
  const lines: string[] = [];
  for (const word of name.split(" ")) {
    if (lengthOf(word, NAME) > room) return null;
    const last = lines.at(-1);
    if (last !== undefined && lengthOf(`${last} ${word}`, NAME) <= room) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

/** Lines that fit a space, lying or standing; the reference alone when the whole name does not. */
function fitName(name: string, ref: string, w: number, h: number): { lines: string[]; standing: boolean } {
  for (const words of [name, ref])
    for (const standing of [false, true]) {
      const [along, across] = standing ? [h, w] : [w, h];
      const lines = broken(words, along);
      if (lines && lines.length * NAME * LINE_H <= across) return { lines, standing };
    }
  return { lines: [ref], standing: false };
}

/** The part's name on a plate above the wires: where its body reaches over the edge, else between its pins. */
function nameShapes(l: Layout, part: PlacedPart, n: Named): Shape[] {
  const b = part.body!;
  if (part.lying || b.x2 - b.x1 < 2) return [];
  const middle = (b.x1 + b.x2) / 2;
  const pins = part.holes.map((h) => ({ ...h, ...holePoint(l, h.hole) }));
  const labels = (left: boolean) =>
    Math.max(0, ...pins.filter((p) => p.x < middle === left).map((p) => 0.7 + lengthOf(p.pin, PIN)));
  const edge = { left: -5, right: (l.sizes.length - 1) * BOARD_STEP + (SIZES[l.sizes.at(-1)!].railHoles ? 16 : 12.6) };
  const inner = { x1: b.x1 + Math.max(0.3, labels(true)), x2: b.x2 - Math.max(0.3, labels(false)) };
  const over =
    b.x1 < edge.left - 1.6
      ? { x1: b.x1 + 0.3, x2: edge.left - 0.1 }
      : b.x2 > edge.right + 1.6
        ? { x1: edge.right + 0.1, x2: b.x2 - 0.3 }
        : inner;
  const room = over.x2 - over.x1;
  if (room < NAME) return [];
  const { lines, standing } = fitName(
    [n.ref, n.label].filter(Boolean).join(" "),
    n.ref,
    over.x2 - over.x1,
    b.y2 - b.y1 - 0.4,
  );
  const [cx, cy] = [(over.x1 + over.x2) / 2, (b.y1 + b.y2) / 2];
  const long = Math.max(...lines.map((t) => lengthOf(t, NAME))) + 0.2;
  const high = lines.length * NAME * LINE_H;
  const [w, h] = standing ? [high, long] : [long, high];
  return [
    { kind: "rect", x: cx - w / 2, y: cy - h / 2, w, h, fill: "paper", opacity: 0.85 },
    ...lines.map((t, i): Shape => {
      const at = (i - (lines.length - 1) / 2) * NAME * LINE_H + NAME * 0.33;
      return standing
        ? text(cx + at, cy, t, NAME, { anchor: "middle", bold: true, turn: -90 })
        : text(cx, cy + at, t, NAME, { anchor: "middle", bold: true });
    }),
  ];
}

const SMALL = 0.7;
const LEAST = 0.66;

/** The thick part of a lying one, between its legs. */
function barrel(b: Box): Box {
  const [w, h] = [b.x2 - b.x1, b.y2 - b.y1];
  const cut = Math.max(0, Math.max(w, h) / 2 - 1.7, 0.35);
  return w > h ? { ...b, x1: b.x1 + cut, x2: b.x2 - cut } : { ...b, y1: b.y1 + cut, y2: b.y2 - cut };
}

/** How a part lies that goes neither along nor across the rows: its middle, its angle, and the room on its body. */
function slantOf(l: Layout, part: PlacedPart): { x: number; y: number; turn: number; room: number } | null {
  const [p, q] = part.holes.map((h) => holePoint(l, h.hole)) as [Point, Point];
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  if (Math.abs(dx) < 0.5 || Math.abs(dy) < 0.5) return null;
  const turn = (Math.atan(dy / dx) * 180) / Math.PI;
  const room = 2 * Math.min(1.7, Math.hypot(dx, dy) / 2 - 0.3);
  return { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2, turn, room };
}

/** A small part's name: on its body where it fits, else beside it, off pins, wires, other parts and other names. */
function smallName(l: Layout, part: PlacedPart, n: Named, room: NameRoom, others: readonly Box[]): Shape[] {
  const b = part.body!;
  const slant = part.lying && !n.mark ? slantOf(l, part) : null;
  const fitting = (t: string) => (part.lying && !n.mark && !slant ? placesInside(t, barrel(b), SMALL, LEAST) : []);
  const full = [n.ref, n.value].filter(Boolean).join(" ");
  if (slant) {
    // Written along its body, as on the part.
    const t = nameWidth(full, LEAST) <= slant.room ? full : n.ref;
    room.keep(nameBox(t, { ...slant, standing: false, size: LEAST }));
    const rad = (slant.turn * Math.PI) / 180;
    const drop = LEAST * 0.33;
    return [
      text(slant.x - Math.sin(rad) * drop, slant.y + Math.cos(rad) * drop, t, LEAST, {
        anchor: "middle",
        bold: true,
        turn: slant.turn,
      }),
    ];
  }
  const words = fitting(full).length || !fitting(n.ref).length ? full : n.ref;
  const inside = fitting(words);
  // The value is in the lists as well: where it does not fit, the reference alone is clearer.
  const name = inside.length || n.mark === "can" ? words : n.ref;
  const at = room.place(name, inside.length ? inside : placesBeside(name, b, SMALL), others);
  const plate = nameBox(name, at);
  return [
    ...(inside.length
      ? []
      : [
          {
            kind: "rect" as const,
            x: plate.x1,
            y: plate.y1,
            w: plate.x2 - plate.x1,
            h: plate.y2 - plate.y1,
            fill: "paper" as const,
            opacity: 0.85,
          },
        ]),
    at.standing
      ? text(at.x + at.size * 0.33, at.y, name, at.size, { anchor: "middle", bold: true, turn: -90 })
      : text(at.x, at.y + at.size * 0.33, name, at.size, { anchor: "middle", bold: true }),
  ];
}

/** Names of all small parts, after everything else is where it is. */
function smallNames(l: Layout, named: (ref: string) => Named, wires: readonly (readonly [Point, Point])[]): Shape[] {
  const ends = wires.flat();
  const pins = l.parts.flatMap((p) => p.holes.map((h) => holePoint(l, h.hole)));
  const dot = (p: Point, r: number): Box => ({ x1: p.x - r, x2: p.x + r, y1: p.y - r, y2: p.y + r });
  const room = new NameRoom([...pins.map((p) => dot(p, 0.3)), ...ends.map((p) => dot(p, 0.3))], wires);
  // Those whose names found no room between their pins.
  const small = l.parts.filter((p) => p.body && !nameShapes(l, p, named(p.ref)).length);
  for (const p of l.parts) {
    // Pin names in and beside bodies have their places.
    const b = p.body;
    if (!b || p.lying) continue;
    const narrow = b.x2 - b.x1 < 2;
    for (const h of p.holes) {
      const at = holePoint(l, h.hole);
      const wide = lengthOf(h.pin, PIN);
      const inward = narrow || at.x < (b.x1 + b.x2) / 2 ? 1 : -1;
      const from = at.x + inward * 0.45;
      room.keep({
        x1: Math.min(from, from + inward * wide),
        x2: Math.max(from, from + inward * wide),
        y1: at.y - 0.3,
        y2: at.y + 0.3,
      });
    }
  }
  return small.flatMap((p) =>
    smallName(
      l,
      p,
      named(p.ref),
      room,
      l.parts.flatMap((q) => (q !== p && q.body ? [q.body] : [])),
    ),
  );
}

/** A jumper bows a little, so that two side by side can be told apart. */
function wirePath(a: Point, b: Point, k: number): string {
  const long = Math.hypot(a.x - b.x, a.y - b.y);
  const bow = long < 4 ? 0 : (k % 2 ? 1 : -1) * Math.min(1.2, 0.06 * long + 0.15 * (k % 4));
  const [nx, ny] = [-(b.y - a.y) / (long || 1), (b.x - a.x) / (long || 1)];
  const [cx, cy] = [(a.x + b.x) / 2 + nx * bow * 2, (a.y + b.y) / 2 + ny * bow * 2];
  return bow ? `M${a.x} ${a.y}Q${cx} ${cy} ${b.x} ${b.y}` : `M${a.x} ${a.y}L${b.x} ${b.y}`;
}

/** Labels of leads at both margins, at their hole's height as far as they do not meet. */
function leadShapes(c: Circuit, l: Layout, left: number, right: number): Shape[] {
  const leads = l.wires.flatMap((w) => {
    if (w.kind !== "lead") return [];
    const [far, near] = w.a.hole ? [w.b, w.a] : [w.a, w.b];
    return near.hole ? [{ w, far: far.at, at: holePoint(l, near.hole) }] : [];
  });
  const out: Shape[] = [];
  for (const side of ["left", "right"] as const) {
    const mine = leads
      .filter((x) => x.at.x < 5.5 === (side === "left"))
      .sort((a, b) => a.at.y - b.at.y || a.at.x - b.at.x);
    let last = -Infinity;
    for (const { w, far, at } of mine) {
      const y = Math.max(at.y, last + LABEL_STEP);
      last = y;
      const x = side === "left" ? left : right;
      const wire = { wire: wireColour(c, w.net, w.a.at, w.b.at) };
      out.push(
        { kind: "path", d: `M${at.x} ${at.y}L${x} ${y}`, stroke: "paper", width: 0.5 },
        { kind: "path", d: `M${at.x} ${at.y}L${x} ${y}`, stroke: wire, width: 0.22, of: w.net },
        { kind: "circle", x: at.x, y: at.y, r: 0.24, fill: wire },
        text(x + (side === "left" ? -0.2 : 0.2), y + 0.25, far, 0.72, {
          anchor: side === "left" ? "end" : "start",
          bold: true,
        }),
      );
    }
  }
  return out;
}

const markOf = (part: string): Named["mark"] =>
  /\/diode-/.test(part) ? "ring" : /\/electrolytic$/.test(part) ? "can" : null;

/** The breadboards with everything on them, in hole pitches and true to scale: 1 unit is 2.54 mm. */
export function breadboardDrawing(c: Circuit, l: Layout): Drawing {
  const names = new Map(c.netlist.nets.map((n) => [n.id, n.name]));
  const railNames = new Map(l.rails.map((r) => [`${r.half}${r.pole}` as `${Half}${Pole}`, names.get(r.net) ?? ""]));
  const named = (ref: string): Named => {
    const i = c.netlist.instance(ref)!;
    const usb = i.part.pins.some((p) => p.role === "cable") ? (i.part.board?.countedFrom ? "bottom" : "top") : null;
    return {
      ref,
      label: [i.inserted || i.label === ref ? "" : i.label, i.reading.confirmed ? "" : "(not confirmed)"]
        .filter(Boolean)
        .join(" "),
      value: valueOf(i),
      usb,
      mark: markOf(i.part.id),
    };
  };
  const rows = Math.max(...l.sizes.map((s) => SIZES[s].rows));
  const bodies = l.parts.flatMap((p) => (p.body ? [p.body] : []));
  // Leads end beyond everything that reaches out over the edge.
  const edge = (l.sizes.length - 1) * BOARD_STEP + (SIZES[l.sizes.at(-1)!].railHoles ? 16 : 12.6);
  const left = Math.min(-5.6, ...bodies.map((b) => b.x1)) - 0.6;
  const right = Math.max(edge, ...bodies.map((b) => b.x2)) + 0.6;
  const top = Math.min(-TOP, ...bodies.map((b) => b.y1)) - 0.8;
  const jumpers = l.wires.filter((w) => w.kind !== "lead" && w.a.hole && w.b.hole);
  return {
    x: left - LABEL,
    y: top,
    width: right - left + 2 * LABEL,
    height: Math.max(rows + 2, ...bodies.map((b) => b.y2)) + 0.8 - top,
    unit_mm: PITCH_MM,
    shapes: [
      ...l.sizes.flatMap((s, k) => boardShapes(s, k, railNames)),
      ...l.parts.flatMap((p) => partShapes(l, p, named(p.ref))),
      ...jumpers.flatMap((w, k): Shape[] => {
        const [a, b] = [holePoint(l, w.a.hole!), holePoint(l, w.b.hole!)];
        const d = wirePath(a, b, k);
        const wire = { wire: wireColour(c, w.net, w.a.at, w.b.at) };
        return [
          { kind: "path", d, stroke: "paper", width: 0.5 },
          { kind: "path", d, stroke: wire, width: 0.24, of: names.get(w.net) ?? "" },
          ...[a, b].map((p): Shape => ({ kind: "circle", x: p.x, y: p.y, r: 0.26, fill: wire })),
        ];
      }),
      ...leadShapes(c, l, left, right),
      ...l.parts.flatMap((p) => nameShapes(l, p, named(p.ref))),
      ...smallNames(
        l,
        named,
        jumpers.map((w) => [holePoint(l, w.a.hole!), holePoint(l, w.b.hole!)] as const),
      ),
    ],
  };
}
