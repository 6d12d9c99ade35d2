import type { Need } from "../../parts/catalogue";

/** One reason for a price, in the units of `WEIGHTS`. */
export interface Price {
  reason: "hazard" | "level" | "scarcity" | "side" | "order" | "bus" | "preference" | "software" | "behind" | "moved";
  cost: number;
  says: string;
}

/** What a choice takes of a resource that pins share: in which mode the resource must be, and which slot of it. */
export interface Use {
  /** Index into `Problem.resources`. */
  resource: number;
  /** A timer's frequency, a controller's pin set: users in different modes can't stand side by side. */
  mode: string;
  /** A timer's channel, an interrupt line: one need each. Null when there is no such thing. */
  slot: string | null;
}

/** A pin that may serve a need, with its price. `pin` is an index into `Problem.pins`. */
export interface Choice {
  pin: number;
  bus: string | null;
  cost: number;
  prices: Price[];
  uses: Use[];
}

export interface ProblemNeed {
  /** `REF.PIN` of the part. */
  id: string;
  ref: string;
  need: Need;
  /** Needs with the same share key on the same bus sit on one pin: clock and data lines. */
  share: string | null;
  /** Needs with the same group take the same bus instance. Null for single pins. */
  group: number | null;
  locked: string | null;
  present: string | null;
  choices: Choice[];
}

/** Pins that can serve: of the host itself, and of expanders, multiplexers and shift registers that hang on it. */
export interface ProblemPin {
  ref: string;
  label: string;
  /** The header or the part that the pin sits on: wires of one part like to stay on one. */
  header: string;
}

/** Something that several pins share: a timer, a controller with alternative pin sets, a line of the interrupt unit. */
export interface Resource {
  id: string;
  /** "timer 1", for sentences. */
  says: string;
  /** How many different modes it can be in at once; 1 for a plain timer. */
  modes: number;
  /** How many needs it serves at most, whatever their slots. */
  most: number;
}

/** Lines that like to stand side by side in their order. An anchor is one such row of pins: the k-th need's place in it. */
export interface Order {
  ref: string;
  says: string;
  needs: number[];
  /** Pin index for every need, or -1 where the row runs off the header. */
  anchors: number[][];
}

export interface Group {
  id: number;
  ref: string;
  kind: string;
  addresses: string[];
  /** It has no select line: on a bus with others it would take what is meant for them. */
  alone?: boolean;
}

/** The assignment problem of one host, as plain data. The solver and the LP writer read nothing else. */
export interface Problem {
  host: string;
  pins: ProblemPin[];
  needs: ProblemNeed[];
  groups: Group[];
  /** Pairs of groups that can't be on one bus: same address, or a port that takes one device. */
  clashes: [number, number, string][];
  /** Buses that hang on another: a multiplexer's channel sees the bus that the multiplexer's own group is on. */
  under: Record<string, number>;
  resources: Resource[];
  orders: Order[];
  /** Price of every header beyond the first that a part's wires go to. */
  sideCost: number;
  /** Price of every line that is out of its place in the row. */
  orderCost: number;
}

/** A pin's endpoint, `B1.GP4`. */
export const endOf = (p: Problem, pin: number) => `${p.pins[pin]!.ref}.${p.pins[pin]!.label}`;

/** An empty problem, for builders and tests. */
export const emptyProblem = (host: string, pins: ProblemPin[]): Problem => ({
  host,
  pins,
  needs: [],
  groups: [],
  clashes: [],
  under: {},
  resources: [],
  orders: [],
  sideCost: 0,
  orderCost: 0,
});
