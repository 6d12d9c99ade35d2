import { evaluate, parse } from "./expression";
import type { Device, Step } from "./types";

/** The bus as a part hears it; null or false: no answer. Time is given with each message, in milliseconds. */
export interface Wire {
  write(bytes: readonly number[], now: number): boolean;
  read(n: number, now: number): readonly number[] | null;
}

export interface Machine {
  /** What was worked out of the last reading; empty until there is one. */
  out: ReadonlyMap<string, number>;
  fresh: boolean;
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

/** After a part did not answer, or answered nonsense, all begins anew after so long, ms. */
export const AGAIN_MS = 1000;

/** The device as a program works it, on any bus: the simulation's own target. Never throws for what a part does. */
export function machineOf(device: Device, wire: Wire): Machine {
  const names = new Map<string, number>();
  const out = new Map<string, number>();
  let bytes: readonly number[] = [];
  let k = 0;
  let looks = 0;
  const steps = [...device.begin, ...device.read];
  const value = (x: string) => evaluate(parse(x), names, bytes);
  const take = (r: { n: number; from?: number | undefined }, now: number) => {
    if (r.from !== undefined && !wire.write([r.from], now)) throw new NoAnswer();
    const got = wire.read(r.n, now);
    if (got?.length !== r.n) throw new NoAnswer();
    bytes = got;
  };
  /** Milliseconds to wait before the next step, or nothing. */
  const DO: { [K in Step["do"]]: (s: Extract<Step, { do: K }>, now: number) => number | undefined } = {
    write: (s, now) => {
      const list = s.bytes.map((b) => (typeof b === "number" ? b : value(b)));
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
      if (crc8(bytes.slice(s.from, s.from + s.n), s.poly, s.init) !== bytes[s.from + s.n]) throw new NoAnswer();
      return undefined;
    },
    must: (s) => {
      if (!value(s.holds)) throw new NoAnswer();
      return undefined;
    },
    let: (s) => {
      names.set(s.name, value(s.is));
      return undefined;
    },
  };
  const machine = {
    out,
    fresh: false,
    turn(now: number): number {
      try {
        while (k < steps.length) {
          const s = steps[k++]!;
          const ms = (DO[s.do] as (s: Step, now: number) => number | undefined)(s, now);
          if (ms !== undefined) return ms;
        }
        for (const q of device.out) out.set(q.name, names.get(q.name)!);
        machine.fresh = true;
        k = device.begin.length;
        return device.every;
      } catch (e) {
        if (!(e instanceof NoAnswer)) throw e;
        machine.fresh = false;
        k = 0;
        looks = 0;
        return AGAIN_MS;
      }
    },
  };
  return machine;
}
