import { levelAt, type Channel } from "../types";

/** What was said on an I2C bus (UM10204, 3.1): whom it was said to, and whether anybody answered. */
export interface I2cMessage {
  at: number;
  address: number;
  read: boolean;
  /** Somebody took the address. */
  answered: boolean;
  bytes: { value: number; taken: boolean }[];
}
export interface I2cHeard {
  messages: I2cMessage[];
  /** Bytes that stopped in the middle: what the lines carry is no such bus, or is disturbed. */
  broken: number;
  /** Hertz, from the shortest usual period of the clock; null where it never ran. */
  clock_Hz: number | null;
  idle: { sda: 0 | 1; scl: 0 | 1 };
}

/** The middle of sorted values. */
export function median(list: readonly number[]): number | null {
  if (!list.length) return null;
  const s = [...list].sort((a, b) => a - b);
  return s[s.length >> 1]!;
}

const MOST_MESSAGES = 20_000;

/** Hears a bus: start and stop are changes of the data line while the clock is high, bits are read while it is. */
export function hearI2c(sda: Channel, scl: Channel): I2cHeard {
  const messages: I2cMessage[] = [];
  let broken = 0;
  let bits: (0 | 1)[] | null = null;
  let now: I2cMessage | null = null;
  const close = () => {
    if (now && messages.length < MOST_MESSAGES) messages.push(now);
    now = null;
  };
  let [i, j] = [0, 0];
  let [d, c] = [sda.first ?? 1, scl.first ?? 1];
  const rises: number[] = [];
  while (i < sda.at.length || j < scl.at.length) {
    const clock = j < scl.at.length && (i >= sda.at.length || scl.at[j]! <= sda.at[i]!);
    if (clock) {
      c = scl.to[j] as 0 | 1;
      if (c === 1) {
        if (rises.length < 5000) rises.push(scl.at[j]!);
        if (bits) {
          bits.push(d);
          if (bits.length === 9) {
            const value = bits.slice(0, 8).reduce<number>((v, b) => 2 * v + b, 0);
            const taken = bits[8] === 0;
            if (!now)
              now = { at: scl.at[j]!, address: value >> 1, read: (value & 1) === 1, answered: taken, bytes: [] };
            else if (now.bytes.length < 4096) now.bytes.push({ value, taken });
            bits = [];
          }
        }
      }
      j++;
      continue;
    }
    d = sda.to[i] as 0 | 1;
    if (c === 1) {
      // One bit was read at the rise before: with a stop or a start it belongs to no byte.
      if (bits && bits.length > 1) broken++;
      close();
      bits = d === 0 ? [] : null;
    }
    i++;
  }
  close();
  const periods = rises.slice(1).map((t, k) => t - rises[k]!);
  const period = median(periods);
  return {
    messages,
    broken,
    clock_Hz: period ? 1 / period : null,
    idle: { sda: levelAt(sda, Infinity), scl: levelAt(scl, Infinity) },
  };
}
