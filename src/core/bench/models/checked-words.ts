import type { BusPart } from "./types";

/** Remainder of the polynomial x^8 + x^5 + x^4 + 1, begun with ones, worked out by long division. */
export function checksum(bytes: readonly number[]): number {
  const bits = bytes.flatMap((b) => [7, 6, 5, 4, 3, 2, 1, 0].map((i) => (b >> i) & 1));
  const line = [...bits, 0, 0, 0, 0, 0, 0, 0, 0];
  // Beginning with ones is the same as turning the first eight bits over.
  for (let i = 0; i < 8; i++) line[i]! ^= 1;
  const divisor = [1, 0, 0, 1, 1, 0, 0, 0, 1];
  for (let i = 0; i < bits.length; i++) if (line[i]) for (const [k, d] of divisor.entries()) line[i + k]! ^= d;
  return line.slice(-8).reduce((v, b) => v * 2 + b, 0);
}

/** A word as such parts send and take it: high byte, low byte, checksum. */
export const word = (v: number): number[] => {
  const [a, b] = [v >> 8, v & 0xff];
  return [a, b, checksum([a, b])];
};

/** A part that takes commands of two bytes, and answers each once, after a time. */
export function commands(
  list: Readonly<
    Record<
      number,
      { ms: number; answer?(args: readonly number[], now: number): number[] | null; does?(now: number): boolean }
    >
  >,
): BusPart {
  let asked: { at: number; bytes: number[] | null } | null = null;
  return {
    write(bytes, now) {
      const c = list[((bytes[0] ?? 0) << 8) | (bytes[1] ?? 0)];
      if (!c || (asked && now < asked.at && asked.bytes)) return false;
      if (c.does?.(now) === false) return false;
      asked = { at: now + c.ms, bytes: c.answer?.(bytes.slice(2), now) ?? null };
      return !c.answer || asked.bytes !== null;
    },
    read(n, now) {
      const got = asked?.bytes;
      if (!got || now < asked!.at) return null;
      asked = null;
      return [...got, ...Array<number>(Math.max(0, n - got.length)).fill(0xff)].slice(0, n);
    },
  };
}
