/** One line of a capture: when it changed, and to what. Times in seconds from the start of the capture. */
export interface Channel {
  name: string;
  /** Level before the first change; null where it is not known. */
  first: 0 | 1 | null;
  at: Float64Array;
  to: Uint8Array;
}

export interface Capture {
  channels: readonly Channel[];
  /** Seconds from the first to the last time in it. */
  span: number;
  /** What was left out, and why. */
  says: readonly string[];
}

/** Changes that are kept of all channels together: beyond it a capture is cut, and says so. */
export const MOST_CHANGES = 8_000_000;
export const MOST_CHANNELS = 64;

/** Changes of a line as they come, in arrays that grow. */
export class Changes {
  private at = new Float64Array(1024);
  private to = new Uint8Array(1024);
  private n = 0;
  first: 0 | 1 | null = null;
  constructor(readonly name: string) {}

  get count() {
    return this.n;
  }
  /** A level at a time; what does not change is no change. */
  put(at: number, level: 0 | 1): boolean {
    const last = this.n ? this.to[this.n - 1] : this.first;
    if (last === null || last === undefined) {
      this.first = level;
      return false;
    }
    if (last === level) return false;
    if (this.n === this.at.length) {
      const [a, t] = [new Float64Array(this.n * 2), new Uint8Array(this.n * 2)];
      a.set(this.at);
      t.set(this.to);
      [this.at, this.to] = [a, t];
    }
    this.at[this.n] = at;
    this.to[this.n++] = level;
    return true;
  }
  channel = (from: number): Channel => ({
    name: this.name,
    first: this.first,
    at: this.at.subarray(0, this.n).map((t) => t - from),
    to: this.to.subarray(0, this.n),
  });
}

/** Reads a file piece by piece; a sentence when it can't be read. */
export interface CaptureReader {
  push(text: string): string | null;
  end(): { ok: true; capture: Capture } | { ok: false; why: string };
}

/** The level of a line at a time. */
export function levelAt(c: Channel, t: number): 0 | 1 {
  let [lo, hi] = [0, c.at.length];
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (c.at[mid]! <= t) lo = mid + 1;
    else hi = mid;
  }
  return lo === 0 ? (c.first ?? 0) : (c.to[lo - 1] as 0 | 1);
}
