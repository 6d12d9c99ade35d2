import { onSpi } from "./on-spi";
import type { Model } from "./types";

/** Blocks of every card here. */
const SECTORS = 131_072;
/** A card's description of itself, with its size: of the second version in steps of 512 kB, of the first by a multiplier. */
const csd = (large: boolean): number[] => {
  const list = Array<number>(16).fill(0);
  if (large) {
    const size = SECTORS / 1024 - 1;
    [list[0], list[7], list[8], list[9]] = [0x40, size >> 16, (size >> 8) & 255, size & 255];
    return list;
  }
  // Blocks of 1024 bytes: (2047 + 1) * 2^(3 + 2) * 1024 bytes.
  const size = SECTORS / 64 - 1;
  list[5] = 10;
  [list[6], list[7], list[8]] = [(size >> 10) & 3, (size >> 2) & 255, (size & 3) << 6];
  [list[9], list[10]] = [3 >> 1, (3 & 1) << 7];
  return list;
};

/** Which cards there are: 1 up to 2 GB, 2 more than that. It asks for the checksum until it is in the mode for this bus. */
const card = (part: string): Model => ({
  part,
  worlds: [{ card: 2 }, { card: 1 }],
  within: { card: 0 },
  make(w, as) {
    const large = w.card === 2;
    const blocks = as.blocks ?? new Map<number, Uint8Array>();
    /** Not called yet, called and not awake, awake. */
    let state: "native" | "idle" | "ready" = "native";
    let application = false;
    let first: number | null = null;
    let answer: number[] = [];
    /** What was heard of a command since it was selected, and of a block that is written. */
    let command: number[] = [];
    let writes: { at: number; bytes: number[] | null } | null = null;
    const argument = (b: readonly number[]) => ((b[1]! << 24) | (b[2]! << 16) | (b[3]! << 8) | b[4]!) >>> 0;
    const r1 = (illegal = false) => (state === "idle" ? 1 : 0) | (illegal ? 4 : 0);
    const does = (b: readonly number[], now: number): number[] => {
      // Its supply has only just come.
      if (now < 1) return [];
      const called = b[0]! & 0x3f;
      const was = application;
      application = false;
      if (state === "native") {
        if (called !== 0 || b[5] !== 0x95 || argument(b) !== 0) return [];
        state = "idle";
        return [r1()];
      }
      if (called === 8) {
        if (!large) return [r1(true)];
        return b[5] === 0x87 ? [r1(), 0, 0, b[3]! & 15, b[4]!] : [r1() | 8];
      }
      if (called === 55) {
        application = true;
        return [r1()];
      }
      if (called === 41 && was) {
        // A large card wakes only for who says that it knows large ones.
        first ??= now;
        if (now - first > 400 && (!large || argument(b) & 0x40000000)) state = "ready";
        return [r1()];
      }
      if (called === 58)
        return [r1(), (state === "ready" ? 0x80 : 0) | (large && state === "ready" ? 0x40 : 0), 0xff, 0x80, 0];
      if (state !== "ready") return [r1(true)];
      // Large cards count blocks, small ones bytes.
      const at = large ? argument(b) : argument(b) / 512;
      const is = at * 512 === Math.round(at) * 512 && at < SECTORS;
      if (called === 9) return [0, 0xff, 0xfe, ...csd(large), 0, 0];
      if (called === 17) return is ? [0, 0xff, 0xff, 0xfe, ...(blocks.get(at) ?? new Uint8Array(512)), 0, 0] : [0x40];
      if (called === 24) {
        if (!is) return [0x40];
        writes = { at, bytes: null };
        return [0];
      }
      return [r1(true)];
    };
    /** A byte while a block is written: its token, its 512 bytes, two more; then it is busy for a while. */
    const written = (v: number) => {
      if (writes!.bytes === null) {
        if (v === 0xfe) writes!.bytes = [];
        return;
      }
      writes!.bytes.push(v);
      if (writes!.bytes.length < 514) return;
      blocks.set(writes!.at, Uint8Array.from(writes!.bytes.slice(0, 512)));
      writes = null;
      answer = [0xe5, 0, 0, 0, 0, 0];
    };
    return onSpi({
      // So many clocks before it is selected; what is not a command must be ones.
      wakes: 74,
      reply(heard, now) {
        const v = heard.at(-1);
        if (v === undefined) {
          command = [];
          answer = [];
          writes = null;
          return 0xff;
        }
        if (command.length < 6) {
          // Ones before a command are nothing.
          if (command.length || v !== 0xff) command.push(v);
          if (command.length < 6) return 0xff;
          const spoilt = (command[0]! & 0xc0) !== 0x40 || (command[5]! & 1) !== 1;
          answer = spoilt ? [] : [0xff, ...does(command, now)];
        } else if (writes) written(v);
        else if (v !== 0xff) answer = [];
        return answer.shift() ?? 0xff;
      },
      end: () => {
        answer = [];
      },
    });
  },
});

export const sd3v3 = card("module/sd-3v3");
export const sdShifted = card("module/sd-shifted");
