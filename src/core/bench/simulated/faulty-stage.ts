import type { Circuit } from "../../circuit";
import type { Wire } from "../../firmware/devices/run";
import type { Driver } from "../../circuit/solve";
import { ampsThrough, driversOf } from "../laid/drivers";
import type { Laid, LaidElement } from "../laid/laid";
import type { State } from "../laid/types";
import type { Watched, Works } from "../laid/works";
import type { Message } from "../captures/bus-waves";
import type { Stage } from "../stage";

/** What the program does to pins of the board, as it goes: for the meter and for captures. */
export interface Driven {
  /** Milliseconds since the program began. */
  at: number;
  ref: string;
  pin: string;
  hostPin: string;
  level: 0 | 1;
}

export interface Live {
  /** The build as it stands now. */
  state(): State;
  pressed: ReadonlySet<string>;
  /** A pin was driven, or a contact read another level. */
  driven(d: Driven): void;
  /** Something went over a bus, or was asked of a part that is not there. */
  message(m: Message): void;
  /** Levels of the board's pins, by terminal. */
  levels: Map<number, 0 | 1>;
}

/** A light shines from this share of its usual current on. */
const SHINES = 0.02;
const HIGH_SHARE = 0.5;

/** A bench of models as it was really built: what is not wired right does not answer, shine or read as it should. */
export function faultyStage(stage: Stage, c: Circuit, laid: Laid, works: Works, sound: State, live: Live): Stage {
  const by = new Map<string, Watched>(works.watched.flatMap((w) => w.refs.map((ref) => [ref, w])));
  const drivers = driversOf(laid);
  const right = (ref: string) => {
    const w = works.of(live.state(), by.get(ref)?.ref ?? ref);
    return w === "works" || w === "unsure";
  };
  const needOf = (w: Watched | undefined, pin: string) =>
    w?.needs.find((n) => laid.terminals[n.pin]!.endsWith(`.${pin}`)) ?? w?.needs[0];
  const amps = (s: State, e: LaidElement, driver: Driver, at: number, level: "high" | "low") =>
    ampsThrough(s, e, { drive: [{ driver, at, level }] });
  const usual = new Map<LaidElement, number>();
  const most = (w: Watched, e: LaidElement, driver: Driver, at: number) => {
    const known = usual.get(e);
    if (known !== undefined) return known;
    const made = Math.max(...(["high", "low"] as const).map((l) => amps(sound, e, driver, at, l)), 1e-9);
    usual.set(e, made);
    return made;
  };
  const record = (ref: string, pin: string, level: 0 | 1, at: number) => {
    const n = needOf(by.get(ref), pin);
    if (!n) return;
    if (live.levels.get(n.hostPin) === level) return;
    live.levels.set(n.hostPin, level);
    live.driven({ at, ref, pin, hostPin: laid.terminals[n.hostPin]!, level });
  };
  return {
    ...stage,
    wire(ref): Wire | null {
      const inner = stage.wire(ref);
      if (!inner) return null;
      return {
        write(bytes, now) {
          const answered = right(ref) && inner.write(bytes, now);
          live.message({ at: now, ref, out: bytes, in: [], wanted: 0, answered });
          return answered;
        },
        read(n, now) {
          const got = right(ref) ? inner.read(n, now) : null;
          const raw = inner.raw?.();
          live.message({
            at: now,
            ref,
            out: [],
            in: got ?? [],
            wanted: n,
            answered: got !== null,
            ...(raw && { raw }),
          });
          return got;
        },
        ...(inner.ask && {
          ask(bytes: readonly number[], n: number, now: number) {
            const got = right(ref) ? inner.ask!(bytes, n, now) : null;
            live.message({ at: now, ref, out: bytes, in: got ?? [], wanted: n, answered: got !== null });
            return got;
          },
        }),
        ...(inner.pin && {
          pin: (label: string, level: 0 | 1, now: number) => (right(ref) ? inner.pin!(label, level, now) : undefined),
        }),
      };
    },
    level(ref, pin, now) {
      const planned = stage.level(ref, pin, now);
      const w = by.get(ref);
      const n = needOf(w, pin);
      if (!w || !n || !w.loose || !w.contacts.length || !works.hosts.includes(n.host)) {
        record(ref, pin, planned, now);
        return planned;
      }
      const s = live.state();
      const pressed = w.refs.filter((r) => live.pressed.has(r));
      const held = s.held.get(s.root(n.hostPin));
      const V = held ? held.V.typ : s.look(n.hostPin, { pressed })?.volts(s.root(n.hostPin));
      const rail = c.netlist.level(n.host, laid.pins.get(n.hostPin)!.def.label)?.supply;
      const node = rail === undefined ? undefined : laid.place.get(`${n.host}:${rail}`);
      const top = node === undefined ? 3.3 : (sound.held.get(sound.root(node))?.V.typ ?? 3.3);
      // Nothing holds it: an open input reads what it read last, most often high.
      const level = V === undefined || V > HIGH_SHARE * top ? 1 : 0;
      record(ref, pin, level, now);
      return level;
    },
    drive(ref, pin, level, now) {
      record(ref, pin, level, now);
      const w = by.get(ref);
      const n = needOf(w, pin);
      const e = w?.loads[0];
      const driver = n && drivers.get(n.hostPin);
      if (!w || !n || !e || !driver) {
        if (right(ref)) stage.drive(ref, pin, level, now);
        return;
      }
      // What shines is what current flows through: told to the stage as the level that means so there.
      const is =
        amps(live.state(), e, driver, n.hostPin, level ? "high" : "low") >= SHINES * most(w, e, driver, n.hostPin);
      const high = amps(sound, e, driver, n.hostPin, "high") >= amps(sound, e, driver, n.hostPin, "low");
      stage.drive(ref, pin, is === high ? 1 : 0, now);
    },
    dim(ref, percent, now) {
      stage.dim(ref, right(ref) ? percent : 0, now);
    },
    lit(ref, places, now) {
      stage.lit(ref, right(ref) ? places : places.map(() => false), now);
    },
    strip(ref, grb, now) {
      stage.strip(ref, right(ref) ? grb : grb.map(() => 0), now);
    },
    held: (ref, place, now) => right(ref) && stage.held(ref, place, now),
  };
}
