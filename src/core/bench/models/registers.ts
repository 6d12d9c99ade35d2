import type { BusPart } from "./types";

/**
 * A part with registers: the first byte of a message names one, further bytes go into it and those behind it; reading begins
 * where it was named last. What a program has left there before counts: registers begin as `left` says, not as after power-on.
 */
export function registers(o: {
  left?: Readonly<Record<number, number>>;
  /** What stands in a register when it is read. */
  value(register: number, file: ReadonlyMap<number, number>, now: number): number;
  /** Told after a register was written; false: not acknowledged. */
  wrote?(register: number, value: number, file: ReadonlyMap<number, number>, now: number): boolean | undefined;
  /** How many bytes a register has: words are sent whole, the high byte first; 1 when absent. */
  width?: number;
}): BusPart {
  const file = new Map<number, number>(Object.entries(o.left ?? {}).map(([k, v]) => [Number(k), v]));
  let pointer = 0;
  return {
    write(bytes, now) {
      if (!bytes.length) return true;
      pointer = bytes[0]!;
      const data = bytes.slice(1);
      if (o.width === 2) {
        if (data.length < 2) return true;
        file.set(pointer, (data[0]! << 8) | data[1]!);
        return o.wrote?.(pointer, file.get(pointer)!, file, now) ?? true;
      }
      for (const [i, v] of data.entries()) {
        file.set((pointer + i) & 0xff, v);
        if (o.wrote?.((pointer + i) & 0xff, v, file, now) === false) return false;
      }
      return true;
    },
    read(n, now) {
      const out: number[] = [];
      for (let i = 0; i < n; i++) {
        if (o.width === 2) {
          const v = o.value(pointer, file, now) & 0xffff;
          out.push(i % 2 ? v & 0xff : v >> 8);
        } else out.push(o.value((pointer + i) & 0xff, file, now) & 0xff);
      }
      return out;
    },
  };
}

/** A number as bytes, the low one first, in two's complement. */
export const low = (v: number, n = 2): number[] =>
  Array.from({ length: n }, (_, i) => Math.floor((v < 0 ? v + 2 ** (8 * n) : v) / 2 ** (8 * i)) & 0xff);
/** The same with the high one first. */
export const high = (v: number, n = 2): number[] => low(v, n).reverse();
