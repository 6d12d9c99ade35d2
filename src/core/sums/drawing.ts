/** A small schematic as data: symbols on a grid of unit squares, y downward. Drawn by the interface and by the prints. */
export type Point = readonly [x: number, y: number];
export type Item =
  | { kind: "wire"; points: Point[] }
  | { kind: "dot"; at: Point }
  /** Two-legged parts lie between two points. */
  | {
      kind: "resistor" | "led" | "diode" | "capacitor" | "contact" | "coil" | "sensor";
      from: Point;
      to: Point;
      name: string;
      value: string;
    }
  /** Base or gate to the left of `at`; collector or drain above it, emitter or source below. */
  | { kind: "npn" | "nmos"; at: Point; name: string }
  | { kind: "rail" | "ground"; at: Point; name: string }
  /** A pin of the board or chip, its wire leaving to the right (`out`) or coming in from the left. */
  | { kind: "pin"; at: Point; name: string; side: "left" | "right" }
  | { kind: "note"; at: Point; name: string };
export interface Drawing {
  width: number;
  height: number;
  /** One sentence that says what is joined to what, for those who can't see it. */
  says: string;
  items: Item[];
}
export const wire = (...points: Point[]): Item => ({ kind: "wire", points });
export const dot = (x: number, y: number): Item => ({ kind: "dot", at: [x, y] });
export const rail = (x: number, y: number, name: string): Item => ({ kind: "rail", at: [x, y], name });
export const ground = (x: number, y: number): Item => ({ kind: "ground", at: [x, y], name: "GND" });
export const pin = (x: number, y: number, name: string, side: "left" | "right" = "left"): Item => ({
  kind: "pin",
  at: [x, y],
  name,
  side,
});
type Two = Extract<Item, { from: Point }>["kind"];
export const two = (kind: Two, from: Point, to: Point, name: string, value = ""): Item => ({
  kind,
  from,
  to,
  name,
  value,
});
