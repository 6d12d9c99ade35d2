import type { BusPart } from "../../src/core/bench/models/types";
import type { Reply, WirePart } from "./types";

/** Most that is asked for at once. */
const MOST = 32;

/**
 * A part on a two-wire bus that a program times by itself: start and stop by the data line while the clock is high, bytes from the
 * highest bit, an answer in the ninth.
 */
export const onTwoWires = (part: BusPart, address: number, sda: string, scl: string): WirePart =>
  busOnTwoWires(new Map([[address, part]]), sda, scl);

/** The same with several parts, by their addresses. */
export function busOnTwoWires(parts: ReadonlyMap<number, BusPart>, sda: string, scl: string): WirePart {
  /** The one that is spoken to. */
  let part: BusPart | undefined;
  let [data, clock] = [1, 1];
  let bits: number[] = [];
  let heard: number[] | null = null;
  let mode: "idle" | "call" | "hears" | "says" = "idle";
  let saying: number[] = [];
  let at = 0;
  /** The part holds the line low. */
  let mine = false;
  let ninth: "answer" | "asked" | null = null;
  const pull = (low: boolean): Reply[] => {
    if (low === mine) return [];
    mine = low;
    // Let go, it is what the program makes of it.
    return low
      ? [{ line: sda, level: 0 }]
      : [
          { line: sda, level: 1 },
          { line: sda, look_us: 1 },
        ];
  };
  const ended = (us: number) => {
    if (heard?.length) part?.write(heard, us / 1000);
    heard = null;
  };
  const byte = (us: number): boolean => {
    const b = bits.reduce((s, x) => s * 2 + x, 0);
    bits = [];
    if (mode === "hears") {
      heard!.push(b);
      return true;
    }
    part = parts.get(b >> 1);
    if (!part) {
      mode = "idle";
      return false;
    }
    if (b & 1) {
      const got = part.read(MOST, us / 1000);
      mode = got ? "says" : "idle";
      saying = [...(got ?? [])].flatMap((x) => [7, 6, 5, 4, 3, 2, 1, 0].map((k) => (x >> k) & 1));
      at = 0;
      return got !== null;
    }
    mode = "hears";
    heard = [];
    return true;
  };
  return {
    hears: [sda, scl],
    pulledUp: [sda, scl],
    start: () => [],
    change(line, level, us): Reply[] {
      if (line === sda) {
        if (level === data) return [];
        data = level;
        if (!clock) return [];
        // A start or a stop: whatever was begun is over.
        ended(us);
        mode = level ? "idle" : "call";
        bits = [];
        ninth = null;
        return pull(false);
      }
      if (line !== scl || level === clock) return [];
      clock = level;
      if (level) {
        if (ninth === "asked") {
          // Not taken by the program: that was the last byte.
          if (data) mode = "idle";
          return [];
        }
        if (ninth === null && (mode === "call" || mode === "hears")) bits.push(data);
        return [];
      }
      if (ninth !== null) {
        ninth = null;
        if (mode === "says") return pull(saying[at] === 0);
        return pull(false);
      }
      if (mode === "says") {
        at++;
        if (at % 8 === 0) {
          ninth = "asked";
          return pull(false);
        }
        return pull((saying[at] ?? 1) === 0);
      }
      if (bits.length === 8) {
        ninth = "answer";
        return pull(byte(us));
      }
      return [];
    },
    look(_line, level) {
      data = level;
      return [];
    },
  };
}
