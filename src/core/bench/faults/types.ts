import type { Change } from "../laid/change";
import type { Laid } from "../laid/laid";

/** Something that can be wrong with one thing of a build. */
export interface Fault {
  /** Its kind and place: the same fault of the same plan has the same one. */
  id: string;
  kind: string;
  /** Pins and parts that it concerns, for lighting up. */
  at: readonly string[];
  says: string;
  /** What mends it. */
  mend: string;
  /** How often this happens, against the others. */
  weight: number;
  change: Change;
}

/** A kind of fault: one file, one line in the registry. */
export interface FaultKind {
  id: string;
  name: string;
  /** How often people make it for each place where it can be, against a wire that makes no contact. */
  often: number;
  /** Why it is as often as that. */
  because: string;
  /** Effort to mend it, in minutes. */
  minutes: number;
  find(laid: Laid): Weighted[];
}

/** A fault that is more or less likely than its kind is. */
export type Weighted = Omit<Fault, "kind" | "weight"> & { times?: number };
