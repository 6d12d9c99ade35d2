import type { Quantity, Step } from "./types";

/** Steps in short, for devices that are long lists of them. */
export const write = (...bytes: (number | string)[]): Step => ({ do: "write", bytes });
export const read = (n: number, ...from: number[]): Step => ({ do: "read", n, ...(from.length && { from }) });
export const wait = (ms: number): Step => ({ do: "wait", ms });
export const must = (holds: string): Step => ({ do: "must", holds });
export const work = (name: string, is: string): Step => ({ do: "let", name, is });
export const pin = (label: string, level: 0 | 1): Step => ({ do: "pin", pin: label, level });
/** The same bytes over and over in one message. */
export const again = (times: number, ...bytes: (number | string)[]): Step => ({ do: "write", bytes, times });
export const each = (name: string, n: number, ...steps: Step[]): Step => ({ do: "each", name, n, steps });

/** A whole number without a unit. */
export const count = (name: string, word: string, room: [number, number]): Quantity => ({
  name,
  word,
  unit: "",
  digits: 0,
  room,
});
/** A share of the whole, in percent. */
export const share = (name: string, word: string): Quantity => ({ name, word, unit: "%", digits: 0, room: [0, 100] });
/** Ten bits of a voltage that was read from pins, as all boards have them, in percent. */
export const percentAt = (byte: number) => `(u16be(${byte}) >> 6) * 100 / 1023`;
