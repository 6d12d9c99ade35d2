import { levelAt, type Channel } from "../types";

export interface UartHeard {
  /** The usual rate that fits the shortest bit; null where the line never changed. */
  baud: number | null;
  bytes: number[];
  /** Frames whose stop bit was low. */
  bad: number;
  idle: 0 | 1;
}

const RATES = [
  300, 1200, 2400, 4800, 9600, 14_400, 19_200, 31_250, 38_400, 57_600, 74_880, 115_200, 230_400, 250_000, 460_800,
  500_000, 921_600, 1_000_000,
];
const MOST_BYTES = 50_000;

/** Bytes at a rate: eight bits, no parity, one stop bit, lowest bit first. */
function bytesAt(line: Channel, baud: number): { bytes: number[]; bad: number } {
  const bit = 1 / baud;
  const bytes: number[] = [];
  let bad = 0;
  let free = -Infinity;
  for (let k = 0; k < line.at.length && bytes.length < MOST_BYTES; k++) {
    const t = line.at[k]!;
    if (line.to[k] !== 0 || t < free) continue;
    let value = 0;
    for (let b = 0; b < 8; b++) value |= levelAt(line, t + (1.5 + b) * bit) << b;
    if (levelAt(line, t + 9.5 * bit) === 1) bytes.push(value);
    else bad++;
    free = t + 9.4 * bit;
  }
  return { bytes, bad };
}

/** Hears a serial line: of the usual rates the one that explains its shortest bits and breaks fewest frames. */
export function hearUart(line: Channel): UartHeard {
  const idle = levelAt(line, Infinity);
  const gaps = [...line.at]
    .slice(1, 20_000)
    .map((t, i) => t - line.at[i]!)
    .filter((g) => g > 0)
    .sort((a, b) => a - b);
  const shortest = gaps[Math.floor(gaps.length * 0.05)];
  if (shortest === undefined) return { baud: null, bytes: [], bad: 0, idle };
  const near = RATES.filter((r) => Math.abs(r * shortest - 1) < 0.12 || Math.abs(r * shortest - 2) < 0.2);
  const tried = near.map((baud) => ({ baud, ...bytesAt(line, baud) }));
  const best = tried.sort(
    (a, b) =>
      a.bad / (a.bytes.length + a.bad || 1) - b.bad / (b.bytes.length + b.bad || 1) || b.bytes.length - a.bytes.length,
  )[0];
  return best ? { ...best, idle } : { baud: Math.round(1 / shortest), bytes: [], bad: 0, idle };
}
