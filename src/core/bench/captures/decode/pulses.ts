import type { Channel } from "../types";
import { median } from "./i2c";

/** A line that repeats: how often, and how long it is high. */
export interface PulsesHeard {
  Hz: number | null;
  /** Shortest and longest high time, seconds. */
  high: { least: number; most: number } | null;
}

export function hearPulses(line: Channel): PulsesHeard {
  const rises: number[] = [];
  let [least, most] = [Infinity, 0];
  for (let k = 0; k < line.at.length; k++) {
    if (line.to[k] === 1) rises.push(line.at[k]!);
    else if (rises.length) {
      const high = line.at[k]! - rises.at(-1)!;
      least = Math.min(least, high);
      most = Math.max(most, high);
    }
  }
  const period = median(rises.slice(1, 5000).map((t, i) => t - rises[i]!));
  return { Hz: period ? 1 / period : null, high: most > 0 ? { least, most } : null };
}

/** Colours on a strip's line (800 kHz, a long high is a one): bytes of each burst between pauses. */
export function hearStrip(line: Channel): { bursts: number[][]; bit_s: number | null } {
  const bursts: number[][] = [];
  let bits: number[] = [];
  const periods: number[] = [];
  let last = -Infinity;
  const close = () => {
    if (bits.length >= 8) {
      const bytes = Array.from({ length: Math.floor(bits.length / 8) }, (_, i) =>
        bits.slice(8 * i, 8 * i + 8).reduce((v, b) => 2 * v + b, 0),
      );
      if (bursts.length < 5000) bursts.push(bytes);
    }
    bits = [];
  };
  for (let k = 0; k + 1 < line.at.length; k++) {
    if (line.to[k] !== 1) continue;
    const [up, down] = [line.at[k]!, line.at[k + 1]!];
    if (up - last > 50e-6) close();
    else if (periods.length < 5000) periods.push(up - last);
    last = up;
    bits.push(down - up > 0.55e-6 ? 1 : 0);
  }
  close();
  return { bursts, bit_s: median(periods) };
}
