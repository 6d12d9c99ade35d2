/** Geometry of the loom drawing, in drawing units: what the screen, the SVG and the printed plan draw. */
/** Height of the smallest text of the drawing, units: what must be readable decides how large it is shown and printed. */
export const SMALLEST_TEXT = 8.4;

export type Side = "left" | "right";
export type BoxKind = "board" | "part" | "companion" | "supply";

export interface LoomPin {
  end: string;
  label: string;
  x: number;
  y: number;
  side: Side;
  used: boolean;
  /** Pin 1 of a part that counts its pins. */
  first: boolean;
}
export interface LoomBox {
  ref: string;
  /** What stands in the head: the reference, the person's label, the kind of part. */
  label: string;
  /** What stands at the head of the box: reference and label, cut to its width. */
  title: string;
  name: string;
  kind: BoxKind;
  /** A loose two-legged part, drawn small and in the line. */
  inline: boolean;
  x: number;
  y: number;
  w: number;
  h: number;
  pins: LoomPin[];
  /** Put there by hand. */
  fixed: boolean;
}
/** A name at a pin: the net of the wire that leaves there, or the rail or splice that it goes to. */
export interface LoomTag {
  end: string;
  net: string;
  text: string;
  x: number;
  y: number;
  side: Side;
  width: number;
  /** True where the wire ends at the tag, because the net's wires all go to one rail or splice. */
  flag: boolean;
  /** How far the words stand above the pin: above a wire that goes on, level with it where none does. */
  rise: number;
  colour: string;
}
export interface LoomNet {
  id: string;
  name: string;
  colour: string;
  /** Its wires by colour, as SVG path data: a person may have given one wire another colour than the rest. */
  strands: { colour: string; path: string }[];
  dots: [number, number][];
  ends: string[];
}
export interface LoomCable {
  from: string;
  to: string;
  path: string;
}
export interface Loom {
  width: number;
  height: number;
  boxes: LoomBox[];
  nets: LoomNet[];
  tags: LoomTag[];
  cables: LoomCable[];
  /** How often two wires of different nets cross. */
  crossings: number;
}
