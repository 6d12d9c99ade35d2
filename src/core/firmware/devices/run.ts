import { evaluate, parse } from "./expression";
import { LANE_SHIFT } from "./lanes";
import { inARow, type Op } from "./loops";
import { NO_NUMBER, pattern } from "./text";
import type { Device } from "./types";

/** The bus as a part hears it; null or false: no answer. Time is given with each message, in milliseconds. */
export interface Wire {
  write(bytes: readonly number[], now: number): boolean;
  read(n: number, now: number): readonly number[] | null;
  /** Bytes out, then bytes in, in one message; where it is absent that is a write and a read. */
  pin?(label: string, level: 0 | 1, now: number): void;
  ask?(bytes: readonly number[], n: number, now: number): readonly number[] | null;
  /** What came over the line for the last reading, where that is something else than what was handed on; told once. */
  raw?(): readonly number[] | null;
}

export interface Machine {
  /** What was worked out of the last reading; empty until there is one. */
  out: ReadonlyMap<string, number>;
  fresh: boolean;
  /** What the part is told, for one that takes something. */
  want: number;
  /** Tells one of its outputs, at once where the part answers. */
  lane(which: number, value: number, now: number): void;
  /** Writes into a row of a display of letters. */
  line(row: number, text: string): void;
  /** What its rows are to show. */
  rows(): string[];
  /** Does what is due and tells after how many milliseconds it wants to go on. */
  turn(now: number): number;
}

class NoAnswer extends Error {}

/** CRC of eight bits, most significant bit first. */
export function crc8(bytes: readonly number[], poly: number, init: number): number {
  let crc = init;
  for (const b of bytes) {
    crc ^= b;
    for (let i = 0; i < 8; i++) crc = crc & 0x80 ? ((crc << 1) ^ poly) & 0xff : (crc << 1) & 0xff;
  }
  return crc;
}

/** The same from the low end of each byte. */
export function crc8Low(bytes: readonly number[], poly: number, init: number): number {
  let crc = init;
  for (const b of bytes) {
    crc ^= b;
    for (let i = 0; i < 8; i++) crc = crc & 1 ? (crc >> 1) ^ poly : crc >> 1;
  }
  return crc;
}
const sum8 = (bytes: readonly number[], _poly: number, init: number) => bytes.reduce((s, b) => s + b, init) & 0xff;
const CRC = { high: crc8, low: crc8Low, sum: sum8 };

/** After a part did not answer, or answered nonsense, all begins anew after so long, ms. */
export const AGAIN_MS = 1000;

/** Bytes of nothing before an answer on a link that has them. */
export const MOST_LATE = 8;

/** The device as a program works it, on any bus: the simulation's own target. Never throws for what a part does. */
export function machineOf(device: Device, wire: Wire): Machine {
  const names = new Map<string, number>();
  const out = new Map<string, number>();
  let bytes: readonly number[] = [];
  /** How many bytes late an answer may begin. */
  const idle = device.over?.kind === "spi" ? device.over.idle : undefined;
  const late = idle === undefined ? 0 : MOST_LATE;
  let k = 0;
  let looks = 0;
  const begin = inARow(device.begin);
  const steps = [...begin, ...inARow(device.read, begin.length)];
  const { columns, rows } = device.text ?? { columns: 0, rows: 0 };
  const letters = Array<number>(columns * rows).fill(32);
  const lanes = [...(device.lanes ?? [])];
  /** Something else is to be shown. */
  let other = true;
  const line = (row: number, text: string) => {
    for (const [i, c] of [...text.padEnd(columns).slice(0, columns)].entries()) {
      const code = c.charCodeAt(0);
      if (letters[row * columns + i] !== code) other = true;
      letters[row * columns + i] = code;
    }
  };
  for (let r = 1; r < rows; r++) line(r, pattern(device.text!, r));
  const value = (x: string) => evaluate(parse(x), names, bytes, letters, lanes);
  const take = (r: { n: number; from?: number | readonly number[] | undefined }, now: number) => {
    const first = r.from === undefined ? undefined : [r.from].flat();
    let got: readonly number[] | null;
    const n = r.n + late;
    if (first && wire.ask) got = wire.ask(first, n, now);
    else {
      if (first && !wire.write(first, now)) throw new NoAnswer();
      got = wire.read(n, now);
    }
    if (got && late) {
      const begins = got.slice(0, late).findIndex((v) => v !== idle);
      got = got.slice(begins < 0 ? late : begins).slice(0, r.n);
    }
    if (got?.length !== r.n) throw new NoAnswer();
    bytes = got;
  };
  /** Milliseconds to wait before the next step, or nothing. */
  const DO: { [K in Op["do"]]: (s: Extract<Op, { do: K }>, now: number) => number | undefined } = {
    write: (s, now) => {
      const once = s.bytes.map((b) => (typeof b === "number" ? b : value(b) & 0xff));
      const list = s.times === undefined ? once : Array.from({ length: s.times }, () => once).flat();
      if (!wire.write(list, now)) throw new NoAnswer();
      return undefined;
    },
    read: (s, now) => {
      take(s, now);
      return undefined;
    },
    wait: (s) => s.ms,
    until: (s, now) => {
      take(s.read, now);
      if (value(s.holds)) {
        looks = 0;
        return undefined;
      }
      if (++looks >= s.most) throw new NoAnswer();
      k--;
      return s.every;
    },
    crc: (s) => {
      if (CRC[s.way ?? "high"](bytes.slice(s.from, s.from + s.n), s.poly, s.init) !== bytes[s.from + s.n])
        throw new NoAnswer();
      return undefined;
    },
    must: (s) => {
      if (!value(s.holds)) throw new NoAnswer();
      return undefined;
    },
    pin: (s, now) => {
      wire.pin?.(s.pin, s.level, now);
      return undefined;
    },
    let: (s) => {
      names.set(s.name, value(s.is));
      return undefined;
    },
    first: (s) => {
      names.set(s.name, 0);
      return undefined;
    },
    next: (s) => {
      const i = names.get(s.name)! + 1;
      names.set(s.name, i);
      if (i >= s.n) return undefined;
      k = s.to;
      return 0;
    },
  };
  /** What the part has been told; nothing yet, or it has begun anew. */
  let told: number | null = null;
  const machine = {
    out,
    fresh: false,
    want: device.takes?.rest ?? 0,
    line,
    lane(which: number, value: number, now: number) {
      if (lanes[which] === value) return;
      lanes[which] = value;
      machine.want = which * 2 ** LANE_SHIFT + value;
      if (machine.fresh) machine.turn(now);
      else k = 0;
    },
    rows: () =>
      Array.from({ length: rows }, (_, r) => String.fromCharCode(...letters.slice(r * columns, (r + 1) * columns))),
    turn(now: number): number {
      try {
        if (device.takes && k === begin.length && !device.always && told === machine.want && !other)
          return device.every;
        // It may change while the steps wait: what was begun is brought to its end.
        if (device.takes && k <= begin.length) {
          names.set("want", machine.want);
          if (device.text && machine.want !== NO_NUMBER) line(0, String(machine.want));
          other = false;
        }
        while (k < steps.length) {
          const s = steps[k++]!;
          const ms = (DO[s.do] as (s: Op, now: number) => number | undefined)(s, now);
          if (ms !== undefined) return ms;
        }
        for (const q of device.out) out.set(q.name, names.get(q.name)!);
        machine.fresh = true;
        if (device.takes) told = names.get("want")!;
        k = begin.length;
        return device.every;
      } catch (e) {
        if (!(e instanceof NoAnswer)) throw e;
        machine.fresh = false;
        told = null;
        k = 0;
        looks = 0;
        return device.again ?? AGAIN_MS;
      }
    },
  };
  return machine;
}
