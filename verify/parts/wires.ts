import type { BusPart } from "../../src/core/bench/models/types";
import type { Reply, WirePart } from "./types";

/**
 * One wire by Dallas: reset by a long low, presence, then slots that begin with a fall. Each part has a code, and those that were
 * not called by it let the line be.
 */
export function onOneWires(parts: readonly { code: readonly number[]; part: BusPart }[], line: string): WirePart {
  const bitsOf = (bytes: readonly number[]) => bytes.flatMap((b) => [0, 1, 2, 3, 4, 5, 6, 7].map((k) => (b >> k) & 1));
  let fell = 0;
  let bits: number[] = [];
  let heard: number[] = [];
  let waits = false;
  /** Who listens, and what each of them says. */
  let called: (typeof parts)[number][] = [];
  let reading: number[][] = [];
  /** Where a search stands: the bit, and which of its three slots. */
  let search: { bit: number; slot: number; left: (typeof parts)[number][] } | null = null;
  const both = (say: readonly number[]): Reply[] =>
    say.some((b) => b === 0)
      ? [
          { line, level: 0 },
          { line, level: 1, in_us: 30 },
        ]
      : [];
  const byte = (v: number, us: number) => {
    heard.push(v);
    if (heard.length === 1) {
      called = v === 0xcc ? [...parts] : [];
      if (v === 0xf0) search = { bit: 0, slot: 0, left: [...parts] };
      return;
    }
    const body = heard[0] === 0x55 ? heard.slice(9) : heard.slice(1);
    if (heard[0] === 0x55 && heard.length === 9)
      called = parts.filter((p) => p.code.every((c, i) => c === heard[1 + i]));
    if (!body.length || !called.length) return;
    if (body.length === (body[0] === 0x4e ? 4 : 1)) for (const p of called) p.part.write([0xcc, ...body], us / 1000);
    if (body.length === 1 && body[0] === 0xbe) reading = called.map((p) => bitsOf(p.part.read(9, us / 1000)!));
  };
  return {
    hears: [line],
    pulledUp: [line],
    start: () => [],
    change(_l, level, us): Reply[] {
      if (level) {
        if (us - fell < 400) return [];
        bits = [];
        heard = [];
        reading = [];
        called = [];
        search = null;
        waits = false;
        return [
          { line, level: 0, in_us: 30 },
          { line, level: 1, in_us: 150 },
        ];
      }
      fell = us;
      if (reading.length) return both(reading.map((r) => r.shift() ?? 1));
      if (search && search.slot < 2) {
        const at = search;
        const say = at.left.map((p) => bitsOf(p.code)[at.bit]! ^ at.slot);
        at.slot++;
        return both(say);
      }
      waits = true;
      return [{ line, look_us: 30 }];
    },
    look(_l, level, us) {
      if (!waits) return [];
      waits = false;
      if (search) {
        const at = search;
        at.left = at.left.filter((p) => bitsOf(p.code)[at.bit] === level);
        at.bit++;
        at.slot = 0;
        return [];
      }
      bits.push(level);
      if (bits.length < 8) return [];
      byte(
        bits.reduce((s, b, i) => s + (b << i), 0),
        us,
      );
      bits = [];
      return [];
    },
  };
}

/** A low of a millisecond, then the part's own pulses. */
export function onPulses(part: BusPart, line: string): WirePart {
  let fell: number | null = null;
  return {
    hears: [line],
    pulledUp: [line],
    start: () => [],
    change(_l, level, us): Reply[] {
      if (!level) {
        fell = us;
        part.write([], us / 1000);
        return [];
      }
      if (fell === null || us - fell < 800) return [];
      fell = null;
      const bytes = part.read(5, us / 1000);
      if (!bytes) return [];
      const out: Reply[] = [];
      let at = 30;
      const hold = (level2: 0 | 1, for_us: number) => {
        out.push({ line, level: level2, in_us: at });
        at += for_us;
      };
      hold(0, 80);
      hold(1, 80);
      for (const b of bytes)
        for (let k = 7; k >= 0; k--) {
          hold(0, 50);
          hold(1, (b >> k) & 1 ? 70 : 27);
        }
      hold(0, 50);
      hold(1, 0);
      return out;
    },
  };
}

/** A pulse, then a line that is high for as long as the echo took; the burst of sound itself takes some time first. */
export function onEcho(part: BusPart, out: string, back: string): WirePart {
  let rose: number | null = null;
  return {
    hears: [out],
    start: () => [{ line: back, level: 0 }],
    change(_l, level, us): Reply[] {
      if (level) {
        rose = us;
        return [];
      }
      if (rose === null || us - rose < 10) return [];
      rose = null;
      part.write([], us / 1000);
      const [high, low] = part.read(2, us / 1000 + 1000)!;
      return [
        { line: back, level: 1, in_us: 450 },
        { line: back, level: 0, in_us: 450 + high! * 256 + low! },
      ];
    },
  };
}

/** Bits that come out at the rise of a clock; the line is low while something waits. */
export function onClocked(part: BusPart, data: string, clock: string): WirePart {
  let left: number[] | null = null;
  let pulses = 0;
  let rose = 0;
  const ready = (us: number): 0 | 1 => (part.read(1, us / 1000)![0] ? 0 : 1);
  return {
    hears: [clock],
    start: () => [
      { line: data, level: 1 },
      { line: data, look_us: 1000 },
    ],
    look: (_l, _v, us) => [...(left ? [] : [{ line: data, level: ready(us) } as const]), { line: data, look_us: 1000 }],
    change(_l, level, us): Reply[] {
      if (!level) {
        // It falls asleep when its clock stays high.
        if (us - rose > 60) throw new Error(`the clock stood high for ${us - rose} us`);
        return [];
      }
      rose = us;
      left ??= part.read(3, us / 1000)!.flatMap((b) => [7, 6, 5, 4, 3, 2, 1, 0].map((k) => (b >> k) & 1));
      pulses++;
      if (pulses <= 24) return [{ line: data, level: left[pulses - 1] as 0 | 1 }];
      // One more clock: channel A, gain 128.
      pulses = 0;
      left = null;
      return [{ line: data, level: 1 }];
    },
  };
}

export function onShiftOut(part: BusPart, pins: { data: string; clock: string; latch: string }): WirePart {
  let data = 0;
  let bits: number[] = [];
  return {
    hears: [pins.data, pins.clock, pins.latch],
    start: () => [],
    change(line, level, us) {
      if (line === pins.data) data = level;
      else if (line === pins.clock && level) bits.push(data);
      else if (line === pins.latch && level) {
        const bytes: number[] = [];
        for (let i = 0; i + 8 <= bits.length; i += 8) bytes.push(bits.slice(i, i + 8).reduce((s, b) => s * 2 + b, 0));
        part.write(bits.length % 8 ? [0xee] : bytes, us / 1000);
        bits = [];
      }
      return [];
    },
  };
}
export function onShiftIn(part: BusPart, pins: { data: string; clock: string; latch: string }, n: number): WirePart {
  let bits: number[] = [];
  const put = (): Reply[] => [{ line: pins.data, level: (bits[0] ?? 0) as 0 | 1 }];
  return {
    hears: [pins.clock, pins.latch],
    start: () => [],
    change(line, level, us): Reply[] {
      if (line === pins.latch && !level) {
        bits = part.read(n, us / 1000)!.flatMap((b) => [7, 6, 5, 4, 3, 2, 1, 0].map((k) => (b >> k) & 1));
        return put();
      }
      if (line === pins.clock && level) {
        bits.shift();
        return put();
      }
      return [];
    },
  };
}

/** Keys that join a row to a column; a row that is driven low pulls its column. */
export function onMatrix(part: BusPart, rows: readonly string[], columns: readonly string[]): WirePart {
  const low = new Set<string>();
  const put = (us: number): Reply[] => {
    const bits = part.read(2, us / 1000)!;
    return columns.map((line, c) => {
      const pulled = rows.some((r, i) => {
        const k = i * columns.length + c;
        return low.has(r) && (bits[k >> 3]! >> (k & 7)) & 1;
      });
      return { line, level: pulled ? 0 : 1 };
    });
  };
  return {
    hears: rows,
    pulledUp: [...rows, ...columns],
    start: () => columns.map((line) => ({ line, level: 1 })),
    change(line, level, us) {
      if (level) low.delete(line);
      else low.add(line);
      return put(us);
    },
  };
}

/** A receiver of light: its line is high, and falls for every burst. */
export function onInfrared(part: BusPart, line: string): WirePart {
  const burst = (list: [number, number][]): Reply[] => {
    let at = 20;
    return list.flatMap(([low, high]) => {
      const out: Reply[] = [
        { line, level: 0, in_us: at },
        { line, level: 1, in_us: at + low },
      ];
      at += low + high;
      return out;
    });
  };
  const bits = (bytes: readonly number[]) =>
    bytes.flatMap((b) => [0, 1, 2, 3, 4, 5, 6, 7].map((k): [number, number] => [562, (b >> k) & 1 ? 1688 : 563]));
  return {
    hears: [],
    start: () => [
      { line, level: 1 },
      { line, look_us: 1000 },
    ],
    change: () => [],
    look(_l, _v, us) {
      const bytes = part.serial!(us / 1000);
      const again: Reply = { line, look_us: 1000 };
      if (!bytes.length) return [again];
      const list: [number, number][] =
        bytes.length === 1
          ? [
              [9000, 2250],
              [562, 0],
            ]
          : [[9000, 4500], ...bits(bytes), [562, 0]];
      return [...burst(list), again];
    },
  };
}

/** A part on a serial port that is timed on plain pins: the lowest bit first, between a low and a high. */
export function onSerial(part: BusPart, line: { says?: string; hears?: string }, baud: number): WirePart {
  const bit_us = 1e6 / baud;
  /** A pause of so many bits ends a message. */
  const PAUSE = 30;
  let level = 1;
  let began: number | null = null;
  let changes: [number, number][] = [];
  let message: number[] = [];
  let ended = 0;
  let queue: number[] = [];
  const heard = () => {
    const start = began!;
    began = null;
    // Each bit as it stands in its middle.
    const at = (k: number) => changes.filter(([t]) => t <= start + (k + 0.5) * bit_us).at(-1)![1];
    message.push(at(9) ? [1, 2, 3, 4, 5, 6, 7, 8].reduce((s, k) => s + (at(k) << (k - 1)), 0) : 0xee);
    ended = start + 10 * bit_us;
  };
  /** One byte at a time, and when the next is due. */
  const say = (us: number): Reply[] => {
    const line_ = line.says!;
    if (!queue.length) queue = [...(part.serial?.(us / 1000) ?? [])];
    const byte = queue.shift();
    if (byte === undefined) return [{ line: line_, look_us: 2000 }];
    const bits = [0, ...[0, 1, 2, 3, 4, 5, 6, 7].map((n) => (byte >> n) & 1), 1];
    return [
      ...bits.flatMap((v, k): Reply[] =>
        v === (k ? bits[k - 1]! : 1) ? [] : [{ line: line_, level: v as 0 | 1, in_us: 1 + Math.round(k * bit_us) }],
      ),
      { line: line_, look_us: Math.ceil(10.5 * bit_us) },
    ];
  };
  return {
    hears: line.hears ? [line.hears] : [],
    ...(line.says && { pulledUp: [line.says] }),
    start: () => (line.says ? [{ line: line.says, look_us: 2000 }] : []),
    change(l, v, us) {
      if (began !== null && us > began + 9.4 * bit_us) heard();
      if (began === null && level === 1 && v === 0) {
        began = us;
        changes = [];
      }
      if (began !== null) changes.push([us, v]);
      level = v;
      return [{ line: l, look_us: Math.ceil((10 + PAUSE) * bit_us) }];
    },
    look(l, _v, us) {
      if (l === line.says) return say(us);
      if (began !== null && us >= began + 9.4 * bit_us) heard();
      if (message.length && us > ended + PAUSE * 0.9 * bit_us) {
        part.write(message, us / 1000);
        message = [];
      }
      return [];
    },
  };
}
