import { DEVICES } from "../devices";
import { NO_NUMBER } from "../devices/text";
import { machineOf, type Machine, type Wire } from "../devices/run";
import type { Device } from "../devices/types";
import { driverOf } from "../drivers";
import type { DriverPart } from "../types";
import type { SimBench } from "./bench";
import { LINE, saying, silence } from "./show";

/** A part as the program works it. */
export interface SimPart {
  p: DriverPart;
  /** Its first turn comes at once; each tells after how many milliseconds it wants the next. Absent: it has no task. */
  turn?(now: number): number;
  /** Its whole numbers by name; null while there is no reading. */
  values?(): ReadonlyMap<string, number> | null;
  /** What it says in a line. */
  show?(): string;
  tell?(value: number, now: number): void;
  /** Into a row of a display. */
  line?(row: number, text: string): void;
  machine?: Machine;
}

/** Where a part's pins are: the board's, or bits of what another part is told. */
export interface Pins {
  put(p: DriverPart, pin: string, level: 0 | 1, now: number): void;
  /** So much of full power, in hundredths, by pulses. */
  dim(p: DriverPart, pin: string, percent: number, now: number): void;
  look(p: DriverPart, pin: string, rest: 0 | 1, now: number): 0 | 1;
  /** Whether the parts that read its voltages, or make its pulses, answer. */
  served(p: DriverPart, now: number): boolean;
}

/** How long a contact must stay before it counts, ms. */
const SETTLES_MS = 20;

const NOBODY: Wire = { write: () => false, read: () => null };

/** Its side of the link, which is silent while what measures or drives for it is. */
function wireOf(p: DriverPart, bench: SimBench, pins: Pins): Wire {
  const wire = bench.wire(p.inst.ref) ?? NOBODY;
  if (![...(p.through?.values() ?? [])].some((at) => at.volts ?? at.lane)) return wire;
  return {
    ...wire,
    read: (n, now) => (pins.served(p, now) ? wire.read(n, now) : null),
    write: (b, now) => pins.served(p, now) && wire.write(b, now),
  };
}

function worked(p: DriverPart, device: Device, bench: SimBench, pins: Pins): SimPart {
  const machine = machineOf(device, wireOf(p, bench, pins));
  // No number stands on it until a rule tells it one.
  if (device.text) {
    machine.want = NO_NUMBER;
    for (let r = 1; r < device.text.rows; r++) machine.line(r, "");
  }
  const values = () => (machine.fresh ? machine.out : null);
  const says = device.out.length > 0 && p.outs === undefined;
  return {
    p,
    machine,
    turn: (now) => machine.turn(now),
    values,
    ...(says && {
      show: () => (machine.fresh ? saying(device.out, machine.out) : silence(p.label)),
    }),
    ...(device.takes && !p.outs && { tell: (v: number) => void (machine.want = v) }),
    ...(device.text && { line: machine.line }),
  };
}

function light(p: DriverPart, pins: Pins): SimPart {
  let on = false;
  const put = (lit: boolean, now: number) => pins.put(p, p.leg, lit !== p.activeLow ? 1 : 0, now);
  return {
    p,
    // Without a rule it blinks.
    ...(!p.ruled && {
      turn: (now: number) => {
        on = !on;
        put(on, now);
        return 500;
      },
    }),
    tell: (v, now) => (p.dims ? pins.dim(p, p.leg, v, now) : put(v !== 0, now)),
  };
}

function contact(p: DriverPart, pins: Pins, say: (line: string) => void): SimPart {
  const idle = p.activeLow ? 1 : 0;
  let last: number = idle;
  let since = 0;
  let pressed = false;
  return {
    p,
    turn: (now) => {
      const level = pins.look(p, p.leg, idle, now);
      if (level !== last) {
        last = level;
        since = now;
      } else if (now - since >= SETTLES_MS && pressed !== (level !== idle)) {
        pressed = level !== idle;
        if (pressed) say(`${p.label} pressed`);
      }
      return 5;
    },
    values: () => new Map([["pressed", Number(pressed)]]),
    show: () => (pressed ? `${p.label} pressed`.slice(0, LINE) : ""),
  };
}

function keys(p: DriverPart, bench: SimBench, say: (line: string) => void): SimPart {
  const names = (p.inst.part.addresses ?? []).map((a) => a.name);
  const pressed = names.map(() => false);
  const same = names.map(() => 0);
  return {
    p,
    turn: (now) => {
      for (const [k, name] of names.entries()) {
        if (bench.held(p.inst.ref, k, now) === pressed[k]) same[k] = 0;
        else if (++same[k]! >= 4) {
          same[k] = 0;
          pressed[k] = !pressed[k];
          if (pressed[k]) say(`${name} pressed`);
        }
      }
      return 5;
    },
  };
}

function lights(p: DriverPart, bench: SimBench): SimPart {
  const count = p.inst.part.addresses?.length ?? 0;
  return {
    p,
    turn: (now) => {
      bench.lit(
        p.inst.ref,
        Array.from({ length: count }, (_, k) => Math.floor(now / 300) % count === k),
        now,
      );
      return 1;
    },
  };
}

function strip(p: DriverPart, bench: SimBench): SimPart {
  const count = p.vars.pixels ?? 1;
  const cap = Math.floor((p.vars.brightness ?? 1) * 255);
  const grb = Array<number>(3 * count).fill(0);
  const set = (i: number, r: number, g: number, b: number) =>
    [g, r, b].forEach((v, k) => (grb[3 * i + k] = Math.floor((v * cap) / 255)));
  let at = 0;
  let lit = 0;
  return {
    p,
    ...(!p.ruled && {
      turn: (now: number) => {
        for (let i = 0; i < count; i++) set(i, 40, 60, 20);
        set(at, 255, 255, 160);
        bench.strip(p.inst.ref, [...grb], now);
        at = (at + 1) % count;
        return 60;
      },
    }),
    tell: (v, now) => {
      if (lit === v) return;
      lit = v;
      for (let i = 0; i < count; i++) {
        if (i < v) set(i, 255, 255, 160);
        else set(i, 0, 0, 0);
      }
      bench.strip(p.inst.ref, [...grb], now);
    },
  };
}

const kinds = new Map(DEVICES.map((d) => [d.id, d]));
const OTHERS: Record<string, (p: DriverPart, bench: SimBench, pins: Pins, say: (line: string) => void) => SimPart> = {
  led: (p, _b, pins) => light(p, pins),
  button: (p, _b, pins, say) => contact(p, pins, say),
  ws2812b: (p, bench) => strip(p, bench),
  "key-grid": (p, bench, _pins, say) => keys(p, bench, say),
  "light-grid": (p, bench) => lights(p, bench),
  "light-ring": (p, bench) => lights(p, bench),
};

/** A part as the program works it; null where nothing here does, as for one that is known by its pins alone. */
export function simPart(p: DriverPart, bench: SimBench, pins: Pins, say: (line: string) => void): SimPart | null {
  const driver = driverOf(p);
  if (!driver) return null;
  const kind = driver.id === p.inst.part.id ? kinds.get(driver.id) : undefined;
  return kind ? worked(p, kind.of(p), bench, pins) : (OTHERS[driver.id]?.(p, bench, pins, say) ?? null);
}
