import type { Rect } from "../breadboard/spots";
import type { At } from "../solder/carrier";
import type { Seating } from "./headers";

export interface PlugPart {
  ref: string;
  name: string;
  /** Holes for the wires of something that is not on the board. */
  leads: boolean;
  /** The outline over the holes, rows and columns counted from 1. */
  body: Rect;
  pins: { pin: string; end: string | null; at: At }[];
}
export interface PlugWire {
  net: string;
  colour: string;
  from: string;
  to: string;
  a: At;
  b: At;
  /** The hole through which it comes up to a pin on the parts' side, and at which end. */
  through: { at: At; end: "a" | "b" } | null;
  /** From a hole to the next one: a bare piece or a drop of solder. */
  bare: boolean;
  cut_mm: number;
  /** A wire stronger than the others. */
  heavy: { awg: number; says: string } | null;
}
/** A board that plugs onto a header, hole by hole, from the side with the parts. Lengths in millimetres, holes 2.54 mm apart. */
export interface PlugBoard {
  host: string;
  hostName: string;
  seating: Seating;
  columns: number;
  rows: number;
  mm: [number, number];
  header: { pin: string | null; header: string; index: number; at: At; wired: boolean }[];
  /** The host over the board, where it is plugged into it. */
  covers: Rect[];
  /** Where it is cut away for wires into sockets below. */
  cuts: Rect[];
  /** Rows of the header that no hole meets. */
  missing: { header: string; pins: string[]; why: string; end: boolean }[];
  parts: PlugPart[];
  wires: PlugWire[];
  direct: { net: string; from: string; to: string; awg: number }[];
  beside: { ref: string; name: string; why: string }[];
  /** What would be open, joined or in the way, in sentences: empty when the plan is proven. */
  trouble: string[];
}
