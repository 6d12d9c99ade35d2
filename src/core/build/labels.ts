import type { Circuit } from "../circuit";
import type { Drawing, Shape } from "../drawing";
import { partKind } from "../parts/catalogue";
import { runSheet } from "./runsheet";

export interface Label {
  kind: "wire" | "part" | "control";
  /** What is read from afar, and the line under it. */
  text: string;
  small: string;
}

/** What people press, turn and look at: its tag is only its name. */
const CONTROL =
  /^discrete\/(button|footswitch|toggle|potentiometer|led-|reed|limit-switch)|^module\/(encoder|joystick|button-module)/;

/** Tags for this plan: two for each wire that leaves the breadboard, one for each part, one for each control by its name. */
export function labelsFor(c: Circuit): Label[] {
  const wires = runSheet(c)
    .filter((r) => r.kind === "wire" && !(r.holeA && r.holeB))
    .flatMap((r): Label[] => {
      const end = (at: string, hole: string) => (hole ? `${at} (${hole})` : at);
      const small = `${r.step}: ${end(r.from, r.holeA)} to ${end(r.to, r.holeB)}`;
      return [1, 2].map(() => ({ kind: "wire", text: r.net, small }));
    });
  const own = c.project.parts.flatMap((p): Label[] => {
    const i = c.netlist.instance(p.ref);
    if (!i) return [];
    if (CONTROL.test(i.part.id)) return [{ kind: "control", text: i.label, small: p.ref }];
    if (partKind(i.part.id) === "discrete") return [];
    const text = i.label === p.ref ? i.part.name.split(" · ")[0]! : i.label;
    return [{ kind: "part", text, small: `${p.ref}  ${i.part.name}` }];
  });
  return [...own, ...wires];
}

/** Tags in millimetres: width, height, size of the two lines. A wire's tag folds round it, so it is written twice. */
const SIZE: Record<Label["kind"], { w: number; h: number; big: number; small: number }> = {
  wire: { w: 64, h: 9, big: 3.1, small: 2 },
  part: { w: 60, h: 14, big: 4.6, small: 2.3 },
  control: { w: 36, h: 12, big: 4.6, small: 2.2 },
};
const GAP = 1;
/** Widths of letters of the text font, as shares of its size, on the wide side. */
const LETTER = 0.56;
const fit = (t: string, size: number, room: number) => {
  const most = Math.floor(room / (size * LETTER));
  return t.length > most ? `${t.slice(0, Math.max(1, most - 1))}…` : t;
};

function tag(l: Label, x: number, y: number): Shape[] {
  const s = SIZE[l.kind];
  const halves = l.kind === "wire" ? [0, s.w / 2] : [0];
  const room = s.w / halves.length - 3;
  return [
    { kind: "rect", x, y, w: s.w, h: s.h, stroke: "line", width: 0.2 },
    ...(l.kind === "wire"
      ? [{ kind: "path" as const, d: `M${x + s.w / 2} ${y}v${s.h}`, stroke: "line" as const, width: 0.2, dash: [1, 1] }]
      : []),
    ...halves.flatMap((dx): Shape[] => [
      { kind: "text", x: x + dx + 1.5, y: y + s.h * 0.5, text: fit(l.text, s.big, room), size: s.big, bold: true },
      { kind: "text", x: x + dx + 1.5, y: y + s.h * 0.85, text: fit(l.small, s.small, room), size: s.small },
    ]),
  ];
}

/** Sheets of tags to cut out, in millimetres and true to scale, for a printable area of the given size. */
export function labelSheets(labels: readonly Label[], width: number, height: number): Drawing[] {
  const pages: Shape[][] = [];
  let [x, y, row] = [0, height, 0];
  let page: Shape[] = [];
  let kind: Label["kind"] | undefined;
  for (const l of [...labels].sort((a, b) => a.kind.localeCompare(b.kind))) {
    const s = SIZE[l.kind];
    if (x + s.w > width || kind !== l.kind) [x, y] = [0, y + row];
    row = s.h + GAP;
    if (y + s.h > height) {
      page = [];
      pages.push(page);
      [x, y] = [0, 0];
    }
    kind = l.kind;
    page.push(...tag(l, x, y));
    x += s.w + GAP;
  }
  return pages.map((shapes) => ({ x: 0, y: 0, width, height, unit_mm: 1, shapes }));
}
