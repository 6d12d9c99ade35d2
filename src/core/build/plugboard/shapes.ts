import type { Footprint } from "../breadboard/footprints";
import type { Item } from "../breadboard/problem";
import { PITCH_MM } from "../breadboard/sizes";
import { around, both, sizeOf, type Rect } from "../breadboard/spots";

/** One way to put a part down: its holes and its outline, in holes from its first pin. `pin` null: a leg without a net. */
export interface Shape {
  holes: { pin: string | null; x: number; y: number }[];
  body: Rect;
  /** A row of holes for wires that leave the board: it stands at an edge. */
  edge?: boolean;
}

/** Half the width of a lying resistor, in holes. */
const LYING = 0.5;
/** Legs that bend are tried at so many further distances than the shortest. */
const LONGER = 2;

/** Half a hole around every leg. */
const boxOf = (holes: Shape["holes"]): Rect => holes.map((h) => around(h.x, h.y, 1, 1)).reduce((a, b) => both(a, b));

/** A quarter turn clockwise. */
function turned(s: Shape): Shape {
  return {
    ...s,
    holes: s.holes.map((h) => ({ pin: h.pin, x: 0 - h.y, y: h.x })),
    body: { x1: -s.body.y2, x2: -s.body.y1, y1: s.body.x1, y2: s.body.x2 },
  };
}
function* fourWays(s: Shape): Generator<Shape> {
  let at = s;
  for (let k = 0; k < 4; k++) {
    yield at;
    at = turned(at);
  }
}

function upright(item: Item, print: Exclude<Footprint, { kind: "off" | "bridge" }>): Shape {
  const [long, short] = sizeOf(item).map((mm) => mm / PITCH_MM) as [number, number];
  if (print.kind === "straddle") {
    const column = (pins: (string | null)[], x: number) =>
      pins.flatMap((pin, y) => (pin === "" ? [] : [{ pin, x, y }]));
    const holes = [...column(print.left, 0), ...column(print.right, print.apart)];
    const n = Math.max(print.left.length, print.right.length) - 1;
    const fits = [
      [long, short],
      [short, long],
    ].find(([along, across]) => across! >= print.apart - 0.5 && along! >= n - 0.5);
    const legs = boxOf(holes);
    return { holes, body: fits ? both(legs, around(print.apart / 2, n / 2, fits[1]!, fits[0]!)) : legs };
  }
  if (print.kind === "strip") {
    // The body lies to the right: which end is pin 1 then, the print tells; turned the wrong way round it would be mirrored.
    const pins = print.down ? print.pins : [...print.pins].reverse();
    const holes = pins.map((pin, y) => ({ pin, x: 0, y }));
    const n = pins.length - 1;
    const reach = Math.max(print.length, n + 1) / 2;
    const body = { x1: -0.5, x2: Math.max(0.5, print.depth - 0.5), y1: n / 2 - reach, y2: n / 2 + reach };
    return { holes, body };
  }
  let y = 0;
  const holes = print.pins.map((pin, k) => {
    if (k) y += print.steps[k - 1]!;
    return { pin, x: 0, y };
  });
  const legs = boxOf(holes);
  // A knob stands behind its legs; everything else over them.
  if (/potentiometer$/.test(item.inst.part.id))
    return { holes, body: both(legs, around((short - 1) / 2, y / 2, short, long)) };
  return { holes, body: both(legs, around(0, y / 2, short, long)) };
}

function* lying(item: Item, print: Extract<Footprint, { kind: "bridge" }>): Generator<Shape> {
  const [long, short] = sizeOf(item).map((mm) => mm / PITCH_MM) as [number, number];
  const stands = /electrolytic|capacitor|ldr|thermistor/.test(item.inst.part.id);
  for (let span = print.least; span <= Math.min(print.most, print.least + LONGER); span++) {
    const holes = [
      { pin: print.pins[0], x: 0, y: 0 },
      { pin: print.pins[1], x: span, y: 0 },
    ];
    const row = { x1: -0.5, x2: span + 0.5, y1: -LYING, y2: LYING };
    yield* fourWays({ holes, body: stands ? both(row, around(span / 2, 0, long, short)) : row });
  }
}

/** All ways in which a part can be put down: turned by quarters, bending legs nearer and farther apart. */
export function shapesOf(item: Item): Shape[] {
  return item.print.kind === "bridge" ? [...lying(item, item.print)] : [...fourWays(upright(item, item.print))];
}

/** Holes in a row at the edge for the wires of one thing that is not on the board. */
export function leadShapes(pins: readonly string[]): Shape[] {
  const holes = pins.map((pin, y) => ({ pin, x: 0, y }));
  return [...fourWays({ holes, body: boxOf(holes), edge: true })];
}
