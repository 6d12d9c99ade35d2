/** What a part gives: whole numbers of a unit's fraction. */
export interface Quantity {
  /** Name in the program and on the console: `t_cC`. */
  name: string;
  /** What it is called on a display. */
  word: string;
  unit: string;
  /** Digits behind the point when it is shown: 2 for hundredths. */
  digits: number;
  /** Digits that a display shows; as many as there are when absent. */
  shown?: number;
  /** What can be true in a room: outside of it a reading proves nothing. */
  room: [number, number];
}

/** One thing that a program does with a part on a bus. Bytes that were read stand ready for `crc` and `let`. */
export type Step =
  /** Bytes out, one after the other in one message; an expression where a byte is worked out. */
  | { do: "write"; bytes: readonly (number | string)[] }
  /** Bytes in; `from`: the register that is named first, in the same message. */
  | { do: "read"; n: number; from?: number }
  /** Milliseconds that the part takes: the data sheet's longest. */
  | { do: "wait"; ms: number }
  /** Goes on when it holds; looks again after `every` ms, `most` times. */
  | { do: "until"; read: { n: number; from?: number }; holds: string; every: number; most: number }
  /** A checksum over bytes of what was read, against the byte behind them. */
  | { do: "crc"; poly: number; init: number; from: number; n: number }
  /** The reading counts only when this holds: a ready bit, a plausible code. */
  | { do: "must"; holds: string }
  | { do: "let"; name: string; is: string };

/** How one kind of part is talked to: data, from its data sheet, printed into every language and run in the simulation. */
export interface Device {
  /** The driver's name in the catalogue. */
  id: string;
  begin: readonly Step[];
  read: readonly Step[];
  /** Milliseconds from one reading to the next. */
  every: number;
  out: readonly Quantity[];
}
