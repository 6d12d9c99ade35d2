import type { Circuit } from "../../circuit";
import type { Said } from "../../firmware/sim";
import { both, type Change } from "../laid/change";
import { driversOf } from "../laid/drivers";
import { stateOf, type State } from "../laid/state";
import { isTold } from "../reason/questions";
import { reasonOf, shown, type Observation, type Question } from "../reason";
import type { Message } from "../captures/bus-waves";
import type { Stage } from "../stage";
import { trialOf, triable, type Act, type Control, type Shows } from "../trial";
import { bringUpLines } from "./bring-up-lines";
import { faultyStage, type Driven } from "./faulty-stage";

/** What a meter is set to. */
export const MODES = ["beep", "ohm", "volt"] as const;
export type Mode = (typeof MODES)[number];

export interface MeterShows {
  q: Question;
  seen: number | string;
  /** As the meter's display shows it. */
  text: string;
}

export interface BenchState {
  at: number;
  powered: boolean;
  said: readonly Said[];
  shows: readonly Shows[];
}

/** The plan as it was built, with hands: wires to pull, contacts to press, two probes, a console, and what the parts do. */
export interface SimulatedBench {
  controls: readonly Control[];
  /** Parts that the program does not work here. */
  left: readonly string[];
  /** Why no program runs here; null when one does. */
  without: string | null;
  power(on: boolean): void;
  act(a: Act): string | null;
  /** Pulls a wire out, or puts it back; wires are known by their places in the build. */
  pull(wire: number, out: boolean): void;
  run(until: number): BenchState;
  /** Two probes anywhere; null: such a point is not there. Ohms and beep only tell the truth without power. */
  meter(mode: Mode, a: string, b: string): MeterShows | null;
  /** What the bring-up program prints, and what a person sees of the parts, as observations. */
  bringUp(): { lines: readonly string[]; seen: readonly Observation[] };
  /** What pins have done since the start, and what went over buses. */
  driven: readonly Driven[];
  messages: readonly Message[];
}

/** So many changes of pins are kept. */
const MOST_DRIVEN = 200_000;
/** So many bytes of what went over buses are kept. */
const MOST_SAID = 200_000;
/** What a meter shows of nothing: a little, and never the same. */
const NOTHING_V = 0.03;

/** A bench of a plan with something changed; `host`: whose program runs. */
export function simulatedBench(c: Circuit, change: Change, host?: string): SimulatedBench {
  const r = reasonOf(c);
  const { laid, works, sound } = r;
  const drivers = driversOf(laid);
  const board = host ?? triable(c)[0]?.host;
  const pulled = new Set<number>();
  const pressed = new Set<string>();
  const levels = new Map<number, 0 | 1>();
  const driven: Driven[] = [];
  const messages: Message[] = [];
  let said = 0;
  const states = new Map<string, State>();
  const now = (): Change => ({ ...change, cut: [...(change.cut ?? []), ...pulled] });
  const state = (): State => {
    const key = [...pulled].sort((a, b) => a - b).join();
    const known = states.get(key);
    if (known) return known;
    const made = stateOf(laid, now());
    states.set(key, made);
    return made;
  };
  const live = {
    state,
    pressed,
    levels,
    message(m: Message) {
      said += m.out.length + m.wanted + 1;
      if (said < MOST_SAID) messages.push(m);
    },
    driven: (d: Driven) => void (driven.length < MOST_DRIVEN && driven.push(d)),
  };
  const make = () => {
    const build = (s: Stage) => faultyStage(s, c, laid, works, sound, live);
    return board === undefined ? null : trialOf(c, board, build);
  };
  let trial = make();
  /** When the program that runs now began. */
  let began = 0;
  let at = 0;
  let powered = true;
  const alive = () => powered && board !== undefined && works.console(state(), board) !== "silent";
  let was = alive();
  const voltsAt = (t: number): { V: number; domain: number } | null => {
    const s = state();
    const root = s.root(t);
    const h = s.held.get(root);
    if (h) return { V: h.V.typ, domain: h.domain };
    const drive = [...levels].flatMap(([hostPin, level]) => {
      const driver = drivers.get(hostPin);
      return driver ? [{ driver, at: hostPin, level: level ? ("high" as const) : ("low" as const) }] : [];
    });
    // Pins that read are not driven: only those of lights and loads stand at what the program put there.
    const out = drive.filter((d) =>
      works.watched.some((w) => w.loads.length && w.needs.some((n) => n.hostPin === d.at)),
    );
    const shownHere = s.look(t, { pressed: [...pressed], ...(alive() && out.length && { drive: out }) });
    const V = shownHere?.volts(root);
    return V === undefined || shownHere!.domain === null ? null : { V, domain: shownHere!.domain };
  };
  const meter = (mode: Mode, a: string, b: string): MeterShows | null => {
    const [x, y] = [laid.place.get(a), laid.place.get(b)];
    if (x === undefined || y === undefined) return null;
    const q: Question = { kind: mode, a, b };
    if (mode === "volt") {
      const [p, m] = powered ? [voltsAt(x), voltsAt(y)] : [null, null];
      const V = p && m && p.domain === m.domain ? p.V - m.V : null;
      const seen = V ?? NOTHING_V * Math.sin(at + x + y);
      return { q, seen: Number(seen.toFixed(3)), text: `${seen.toFixed(2)} V` };
    }
    // Under power a meter on ohms shows nonsense: nothing that can be believed.
    if (powered) return { q, seen: mode === "beep" ? "open" : Infinity, text: "take the power away first" };
    const held = pressed.size
      ? stateOf(laid, both(now(), { stuck: [...pressed].map((ref) => ({ ref, closed: true })) }))
      : state();
    const seen = r.answer(held, q);
    return { q, seen: seen!, text: mode === "ohm" && seen === Infinity ? "OL" : shown(q, seen) };
  };
  return {
    controls: trial?.controls ?? [],
    left: trial?.left ?? [],
    without: trial ? null : "no board here has a program that can be run on this bench",
    power(on) {
      powered = on;
    },
    act(a) {
      if ("down" in a && a.place === undefined) {
        if (a.down) pressed.add(a.ref);
        else pressed.delete(a.ref);
      }
      return trial?.act(a) ?? null;
    },
    pull(wire, out) {
      if (out) pulled.add(wire);
      else pulled.delete(wire);
    },
    run(until) {
      at = Math.max(at, until);
      const on = alive();
      // Power that comes back starts the program from its beginning.
      if (on && !was) {
        trial = make();
        began = at;
      }
      was = on;
      if (!on || !trial) {
        levels.clear();
        return { at, powered, said: [], shows: (trial?.run(0).shows ?? []).map(dark) };
      }
      const s = trial.run(at - began);
      return { at, powered, said: s.said.map((x) => ({ ...x, at: x.at + began })), shows: s.shows };
    },
    meter,
    bringUp() {
      const s = powered ? state() : null;
      const seen = r.questions.flatMap((q): Observation[] => {
        if (!isTold(q)) return [];
        const a = s ? r.answer(s, q) : q.kind === "console" ? "silent" : null;
        return a === null ? [] : [{ q, seen: a }];
      });
      return { lines: s ? bringUpLines(c, works, s) : [], seen };
    },
    driven,
    messages,
  };
}

/** Without power nothing shines. */
const dark = (s: Shows): Shows => {
  switch (s.kind) {
    case "light":
      return { ...s, lit: false };
    case "strip":
      return { ...s, colours: s.colours.map(() => "rgb(0, 0, 0)") };
    case "grid":
      return { ...s, lit: s.lit.map(() => false) };
    case "rows":
      return { kind: "does", ref: s.ref, label: s.label, says: "dark" };
    case "does":
      return { ...s, says: "off" };
  }
};
