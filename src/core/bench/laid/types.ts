import type { Driver } from "../../circuit/solve";
import type { Change } from "./change";
import type { Laid, LaidElement } from "./laid";
import type { Held } from "./rails";

/** A piece of circuit between held nodes, solved in one state. */
export interface Shown {
  /** Volts at a root against its ground; undefined where nothing holds it. */
  volts(root: number): number | undefined;
  /** Amperes through an element, from its first end to its second. */
  amps(e: LaidElement): number;
  /** The ground that the volts are meant against; null where two unconnected ones meet. */
  domain: number | null;
}

/** A build with something changed, as it stands when it is powered: what is joined, what is held, and what is solved on demand. */
export interface State {
  laid: Laid;
  change: Change;
  root(t: number): number;
  /** Whether a meter on beep sounds between two terminals, unpowered. */
  beeps(a: number, b: number): boolean;
  held: ReadonlyMap<number, Held>;
  /** Sources that a short makes give up. */
  tripped: readonly string[];
  dead: ReadonlySet<string>;
  /** Volts between two terminals; null: nothing holds one of them, a meter shows nothing steady. */
  volts(a: number, b: number): number | null;
  /** The piece of circuit at a terminal, with contacts closed and pins driven as asked. */
  look(at: number, how: How): Shown | null;
  /** The ends of elements at a root, in the state's own joints. */
  at(root: number): readonly LaidElement[];
  ohmOf(e: LaidElement): number | undefined;
  /** Whether anything at a terminal can be otherwise than in a sound build; a change of a rail can be felt anywhere. */
  felt(t: number): boolean;
}

export interface How {
  /** Parts whose contacts are held. */
  pressed?: readonly string[];
  drive?: readonly { driver: Driver; at: number; level: "high" | "low" }[];
  wiper?: number;
}
