import { levelAt, type Channel } from "../types";
import { median } from "./i2c";

/** What was seen of an SPI clock and its select: mode by when data stand still, bytes while selected. */
export interface SpiHeard {
  /** Clock at rest, and which edge of it data stand still at; null where data never changed. */
  mode: 0 | 1 | 2 | 3 | null;
  clock_Hz: number | null;
  bytes: number[];
  /** Clocks in a stretch of being selected that made no whole bytes. */
  odd: number;
}

const MOST_BYTES = 50_000;

/** Hears one part: its select low, data out of the board, clock. Without a select everything counts. */
export function hearSpi(sck: Channel, mosi: Channel, cs: Channel | null): SpiHeard {
  const idle = restOf(sck, cs);
  const chosen = (t: number) => !cs || levelAt(cs, t) === 0;
  const edges: { t: number; rise: boolean }[] = [];
  for (let k = 0; k < sck.at.length; k++) if (chosen(sck.at[k]!)) edges.push({ t: sck.at[k]!, rise: sck.to[k] === 1 });
  // Data change at one edge and stand still at the other: those changes are counted by the edge that is nearest.
  let [atRise, atFall] = [0, 0];
  let e = 0;
  for (let k = 0; k < mosi.at.length; k++) {
    const t = mosi.at[k]!;
    if (!edges.length || !chosen(t)) continue;
    while (e + 1 < edges.length && edges[e + 1]!.t <= t) e++;
    const near = e + 1 < edges.length && edges[e + 1]!.t - t < t - edges[e]!.t ? edges[e + 1]! : edges[e]!;
    // Before the first edge the first bit is put out: that says nothing.
    if (t < edges[0]!.t) continue;
    if (near.rise) atRise++;
    else atFall++;
  }
  const reads = atRise === atFall ? null : atRise > atFall ? "fall" : "rise";
  const mode =
    reads === null ? null : (((idle ? 2 : 0) + ((reads === "rise") === (idle === 0) ? 0 : 1)) as 0 | 1 | 2 | 3);
  const bytes: number[] = [];
  let odd = 0;
  let [value, n] = [0, 0];
  let last = -1;
  const wants = reads !== "fall";
  const stretch = (t: number) => (cs ? countBefore(cs, t) : 0);
  for (const x of edges) {
    if (x.rise !== wants) continue;
    const here = stretch(x.t);
    if (here !== last) {
      if (n) odd += n;
      [value, n] = [0, 0];
      last = here;
    }
    value = 2 * value + levelAt(mosi, x.t);
    if (++n === 8) {
      if (bytes.length < MOST_BYTES) bytes.push(value);
      [value, n] = [0, 0];
    }
  }
  const rises = edges.filter((x) => x.rise).map((x) => x.t);
  const period = median(rises.slice(1, 5000).map((t, k) => t - rises[k]!));
  return { mode, clock_Hz: period ? 1 / period : null, bytes, odd: odd + n };
}

/** So many changes of a line lie before a time. */
function countBefore(c: Channel, t: number): number {
  let [lo, hi] = [0, c.at.length];
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (c.at[mid]! <= t) lo = mid + 1;
    else hi = mid;
  }
  return lo;
}

/** Where the clock rests: its level while nobody is selected, or where it stands longest. */
function restOf(sck: Channel, cs: Channel | null): 0 | 1 {
  if (cs) for (let k = 0; k < cs.at.length; k++) if (cs.to[k] === 0) return levelAt(sck, cs.at[k]!);
  const stands = [0, 0];
  for (let k = 0; k + 1 < sck.at.length; k++) stands[sck.to[k]!]! += sck.at[k + 1]! - sck.at[k]!;
  return stands[1]! > stands[0]! * 1.5 ? 1 : 0;
}
