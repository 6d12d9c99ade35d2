import type { Element, Level, Need, Pin } from "../../parts/catalogue";
import type { Triple } from "../../quantity";
import type { Expanded, Instance, Wire } from "./expand";

export type NetKind = "signal" | "supply" | "ground" | "bus-line";
export type EndAs = "driver" | "receiver" | "both" | "passive" | "source" | "sink" | "ground" | "none";

/** A pin on a net and what it does there. */
export interface NetEnd {
  ref: string;
  pin: string;
  as: EndAs;
  def: Pin;
}

export interface Net {
  id: string;
  name: string;
  kind: NetKind;
  ends: NetEnd[];
  /** Power nodes (`REF:supply`) and ground nodes (`REF:ground:domain`) that are part of the net. */
  nodes: { ref: string; supply?: string; ground?: string }[];
  /** Resolved voltage of supply and ground nets; null for a supply net that nothing feeds. */
  V: Triple | null;
}

/** A two-ended element between two nets, values evaluated. */
export interface NetElement {
  ref: string;
  kind: Element["kind"];
  /** The part's own definition of it; absent for pulls inside a chip. */
  def?: Element;
  a: string;
  b: string;
  ohm?: number;
  tolerance?: number;
  Vf?: Triple;
  max_A?: number;
  F?: number;
  /** What a load draws, amperes. */
  A?: { idle: number; typ: number; peak: number };
  inductive?: boolean;
  /** The net of the base or gate of a transistor, whose collector and emitter (drain and source) are `a` and `b`. */
  control?: string;
  /** Smallest and largest value in use, ohms, of what varies with light, heat or a hand. */
  span?: { min: number; max: number };
  /** True for a pull inside a chip. */
  internal?: boolean;
  /** A whole part whose ground hangs behind a switch: what it draws is a load of that switch. */
  module?: boolean;
}

/** A part's need and the host pin that serves it, found along the wires, resistors and buffers between them. */
export interface Binding {
  ref: string;
  pin: string;
  need: Need;
  host: string;
  hostPin: string;
  /** False when a resistor, divider or buffer stands between. */
  direct: boolean;
  /** The part of the same kind whose data-out feeds this one: then the board pin is that one's, not this one's. */
  chainedAfter?: string;
  /** True when the signal crosses from one ground domain into another, as in an isolator. */
  isolated?: boolean;
  /** The pin of the first buffer or isolator on the way that carries signals in one direction only. */
  oneWay?: string;
}

export interface Netlist {
  expanded: Expanded;
  nets: Net[];
  elements: NetElement[];
  bindings: Binding[];
  /** The net of a pin (`REF.PIN`) or node (`REF:supply`, `REF:ground:domain`). */
  netOf(terminal: string): Net;
  instance(ref: string): Instance | undefined;
  /** Level set of a pin, or undefined for supply, ground and passive pins. */
  level(ref: string, pin: string): Level | undefined;
  wires: Wire[];
}
