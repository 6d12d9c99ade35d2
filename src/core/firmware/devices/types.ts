import type { Over } from "../links/over";

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
  /** How it is written behind another: with this between them instead of a blank, and at least two digits, as a clock's minutes are. */
  after?: ":";
  /** What can be true in a room: outside of it a reading proves nothing. */
  room: [number, number];
}

/** One thing that a program does with a part on a bus. Bytes that were read stand ready for `crc` and `let`. */
export type Step =
  /** Bytes out, one after the other in one message, all of them as often as `times`; an expression where a byte is worked out. */
  | { do: "write"; bytes: readonly (number | string)[]; times?: number }
  /** Bytes in; `from`: the register, or the bytes, that go out first in the same message. */
  | { do: "read"; n: number; from?: number | readonly number[] }
  /** Milliseconds that the part takes: the data sheet's longest. */
  | { do: "wait"; ms: number }
  /** Goes on when it holds; looks again after `every` ms, `most` times. */
  | { do: "until"; read: { n: number; from?: number | readonly number[] }; holds: string; every: number; most: number }
  /** A checksum over bytes of what was read, against the byte behind them; bits from the high end, from the low end, or a sum. */
  | { do: "crc"; way?: "high" | "low" | "sum"; poly: number; init: number; from: number; n: number }
  /** The reading counts only when this holds: a ready bit, a plausible code. */
  | { do: "must"; holds: string }
  | { do: "let"; name: string; is: string }
  /** Steps for every number from 0 up to `n`, without it. Each round is a turn of its own, so that a long list holds nothing up. */
  | { do: "each"; name: string; n: number; steps: readonly Step[] }
  /** A pin of the part beside its link: a reset line, an enable. */
  | { do: "pin"; pin: string; level: 0 | 1 };

/** What a part is told: a whole number of a unit's fraction, called `want` in its steps. */
export interface Takes {
  word: string;
  unit: string;
  digits: number;
  /** The least and the most that it takes; what it has until a rule says otherwise. */
  range: [number, number];
  rest: number;
  /** What "on" means; what bring-up shows first when absent. */
  on?: number;
}

/** How a person or the program knows that it works, where it is not a reading that can be true. */
export type DeviceProof =
  /** It is told these, one after the other, and the person says what was seen. `careful`: only after the person asked for it. `ms`: how long each takes, `quick_ms` on a chip that is not slow. */
  | { kind: "seen"; show: readonly number[]; question: string; careful?: string; ms?: number; quick_ms?: number }
  /** The first thing that it gives changes by so much when a person does something. */
  | { kind: "watch"; act: string; by: number; steady?: boolean }
  | { kind: "unproven"; why: string };

/** A display of letters: so many in a row, so many rows. Its steps ask for them by place, row after row: `char(k)`. */
export interface Text {
  columns: number;
  rows: number;
}

/** How one kind of part is talked to: data, from its data sheet, printed into every language and run in the simulation. */
export interface Device {
  /** The driver's name in the catalogue. */
  id: string;
  /** How it is reached; a two-wire bus when absent. */
  over?: Over;
  begin: readonly Step[];
  /** What is done again and again: a reading, or what was told brought to the part. */
  read: readonly Step[];
  /** Milliseconds from one reading to the next. */
  every: number;
  /** Milliseconds until it is tried anew after it did not answer, where that is not a second. */
  again?: number;
  out: readonly Quantity[];
  takes?: Takes;
  /** A memory card: lines can be written to it. */
  logs?: boolean;
  /** It shows letters: what it is told stands in the first row. */
  text?: Text;
  /** Outputs that are told one by one, each its own number; what they are at first. Its steps ask for them by place: `lane(k)`. */
  lanes?: readonly number[];
  /** Also done when what it is told has not changed: pulses, steps. */
  always?: boolean;
  proof?: DeviceProof;
}

/** What a kind of part may depend on: which of its pins are wired, how many stand in its chain, its options and values. */
export interface Wired {
  has(label: string): boolean;
  chain: number;
  options: Readonly<Record<string, string | number>>;
  vars: Readonly<Record<string, number>>;
  /** Lines on which others hang that are told something, and which of them rest high, as bits; absent: none hangs on it. */
  outs?: number;
  rests?: number;
  /** Lines on which others hang whose voltage it reads, as bits. */
  ins?: number;
  /** Something on its lines wants pulses of a length, 50 a second. */
  pulsed?: boolean;
  /** What it runs on, nominal millivolts, where that is known. */
  supply_mV?: number;
  /** A rule tells it how much: its pin makes pulses. */
  dims?: "pulses" | "none";
}

/** A device that depends on how it is wired; `cases` are wirings that, taken together, show all of it. */
export interface DeviceKind {
  id: string;
  of(wired: Wired): Device;
  cases: readonly Partial<Wired>[];
}
