import type { SimPart } from "./parts";

/** What was printed, and when. */
export interface Said {
  at: number;
  line: string;
}

/** Programs that the interpreter stands for: a computer's is the same as a microcontroller's. */
export type Tried = "sketch" | "micropython" | "python" | "avr-c";

export interface SimProgram {
  /** Runs until a time, in milliseconds since it began. */
  run(until: number): void;
  readonly said: readonly Said[];
  /** Parts that it works, by reference. */
  readonly parts: ReadonlyMap<string, SimPart>;
  /** Parts that it leaves out. */
  readonly left: readonly { ref: string; label: string }[];
}
