export interface Point {
  ref: string;
  pin: string;
}
/** A place where several wires of a net meet: a rail, a free row, a splice. Known by its name. */
export type Hub = string;
export interface Stretch {
  a: Point | Hub;
  b: Point | Hub;
  because?: string;
  cable?: boolean;
  /** A loose part right at the part that it helps: as short as its legs are. */
  close?: boolean;
  /** Carries much: straight from end to end, of this gauge, with this remark. */
  heavy?: Heavy;
  /** On a breadboard: the two holes (none where an end is beside it), and how far they are apart. */
  holes?: [string | null, string | null];
  apart_mm?: number;
  /** A row of the breadboard joins the two by itself: there is no wire to lay. */
  joined?: boolean;
}
export interface Heavy {
  awg: number;
  /** Amperes at most, the volts of its net, and the remark that the run sheet makes. */
  A: number;
  V: number;
  says: string;
}
