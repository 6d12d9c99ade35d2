import type { Circuit } from "../../circuit";
import { both, type Change } from "../laid/change";
import { stateOf } from "../laid/state";
import type { Fault } from "../faults";
import { find, keyOf, reasonOf, shown, type Hypothesis, type Observation, type Reason } from "../reason";
import { dice } from "../../circuit/solve";

/** How hard a hidden fault is to find: by what it takes to see it. */
export const LEVELS = [
  {
    id: "visible",
    name: "What you can see",
    says: "lights, keys and parts that plainly do nothing",
    kinds: ["open-wire", "turned", "stuck-contact", "dead-part"],
  },
  {
    id: "continuity",
    name: "With the beep",
    says: "wires that are missing or one hole off",
    kinds: ["open-wire", "pin-off", "other-row"],
  },
  {
    id: "voltage",
    name: "With volts",
    says: "supplies, resistors and what is turned round",
    kinds: ["wrong-supply", "sagging", "resistor", "turned", "pin-off"],
  },
  {
    id: "bus",
    name: "On the bus",
    says: "data and clock, selects, addresses, ends of a chain",
    kinds: ["swapped", "selects", "wrong-end", "address", "bridged"],
  },
  { id: "two", name: "Two at once", says: "two faults that hide each other", kinds: [] },
] as const;
export type LevelId = (typeof LEVELS)[number]["id"];

/** A hidden fault, or two. */
export interface Dealt {
  level: LevelId;
  seed: number;
  faults: readonly Fault[];
  change: Change;
}

/** What a learner has done, for the score. */
export interface Attempt {
  measured: readonly Observation[];
  hints: number;
  /** Names given that were not it. */
  wrong: number;
  minutes: number;
  found: boolean;
}

export interface Score {
  points: number;
  /** Measurements of the learner, and of who always measures what tells most. */
  measured: number;
  best: number;
  says: string;
}

const POINTS = { whole: 100, hint: 10, wrong: 15, each: 6, least: 10 };

/** Faults that a level hides: those that anybody can notice, and that do not need another program. */
function pool(r: Reason, level: LevelId): Hypothesis[] {
  const sound = r.signature(r.singles[0]!);
  const kinds: readonly string[] = LEVELS.find((l) => l.id === level)!.kinds;
  const seen = r.singles.slice(1).filter((h) => {
    const kind = h.faults[0]!.kind;
    return (
      kind !== "other-program" &&
      kind !== "uploading" &&
      (!kinds.length || kinds.includes(kind)) &&
      r.signature(h) !== sound
    );
  });
  // What shows in no part and on no console would be looked for in a build that works.
  const notable = seen.filter((h) => symptoms(r, h).length > 0);
  return notable.length ? notable : seen;
}

const symptoms = (r: Reason, h: Hypothesis): Observation[] =>
  r.questions.flatMap((q): Observation[] => {
    if (q.kind !== "part" && q.kind !== "console" && q.kind !== "sight") return [];
    const a = r.shows(h, q);
    return a !== null && a !== r.shows(r.singles[0]!, q) ? [{ q, seen: a }] : [];
  });

/** Levels that this plan has faults for. */
export const levelsOf = (c: Circuit): LevelId[] =>
  LEVELS.filter((l) => pool(reasonOf(c), l.id).length > 0).map((l) => l.id);

/** Hides a fault: which one follows from plan, level and seed alone. Null where the plan has none of the level. */
export function deal(c: Circuit, level: LevelId, seed: number): Dealt | null {
  const r = reasonOf(c);
  const list = pool(r, level);
  if (!list.length) return null;
  // Numbers beside each other shall hide different things: they are mixed well first.
  const roll = dice((Math.imul(seed + 1, 2654435761) ^ (seed << 7)) >>> 0);
  const pick = (from: readonly Hypothesis[]): Fault => {
    // Kinds come alike often, else an open wire would be nearly all there is.
    const kinds = [...new Set(from.map((h) => h.faults[0]!.kind))];
    const kind = kinds[Math.floor(roll() * kinds.length)]!;
    const mine = from.filter((h) => h.faults[0]!.kind === kind);
    return mine[Math.floor(roll() * mine.length)]!.faults[0]!;
  };
  const first = pick(list);
  if (level !== "two") return { level, seed, faults: [first], change: first.change };
  const wires = new Set(first.change.cut ?? []);
  const apart = list.filter((h) => {
    const f = h.faults[0]!;
    return (
      f.id !== first.id && !(f.change.cut ?? []).some((i) => wires.has(i)) && !f.at.some((a) => first.at.includes(a))
    );
  });
  if (!apart.length) return null;
  const second = pick(apart);
  return { level, seed, faults: [first, second], change: both(first.change, second.change) };
}

/** Whether a named fault is one that is hidden, or nothing allowed can tell it from one. */
export function isIt(c: Circuit, dealt: Dealt, id: string): boolean {
  const r = reasonOf(c);
  const named = r.singles.find((h) => h.faults[0]?.id === id);
  if (!named) return false;
  return dealt.faults.some(
    (f) => f.id === id || r.signature(r.singles.find((h) => h.faults[0] === f)!) === r.signature(named),
  );
}

/** What is noticed before anything is measured. */
export function complaint(c: Circuit, dealt: Dealt): string[] {
  const r = reasonOf(c);
  const state = stateOf(r.laid, dealt.change);
  return r.questions.flatMap((q): string[] => {
    if (q.kind !== "part" && q.kind !== "console" && q.kind !== "sight") return [];
    const [a, was] = [r.answer(state, q), r.shows(r.singles[0]!, q)];
    if (a === null || a === was) return [];
    const label =
      "ref" in q
        ? (c.netlist.instance(q.ref)?.label ?? q.ref)
        : "host" in q
          ? (c.netlist.instance(q.host)?.label ?? q.host)
          : "";
    if (q.kind === "sight") return [q.what === "hot" ? "Something gets hot." : "The board starts again by itself."];
    return a === "silent" && q.kind === "part" ? [] : [`${label}: ${shown(q, a)}.`];
  });
}

/** How the learner did, against who always measures what tells most. */
export function scoreOf(c: Circuit, dealt: Dealt, a: Attempt): Score {
  const r = reasonOf(c);
  const best = dealt.faults.reduce(
    (n, f) =>
      n +
      Math.max(
        1,
        find(
          r,
          r.singles.find((h) => h.faults[0] === f)!,
          { wrong: true },
        ).steps,
      ),
    0,
  );
  const measured = a.measured.length;
  const lost = a.hints * POINTS.hint + a.wrong * POINTS.wrong + Math.max(0, measured - best) * POINTS.each;
  const points = a.found ? Math.max(POINTS.least, POINTS.whole - lost) : 0;
  return {
    points,
    measured,
    best,
    says: a.found
      ? `Found with ${measured} ${measured === 1 ? "measurement" : "measurements"}; ${best} are enough.`
      : `Not found. ${best} ${best === 1 ? "measurement is" : "measurements are"} enough.`,
  };
}

/** One step of the reasoning, replayed: what a measurement ruled out. */
export interface ReplayStep {
  o: Observation;
  /** How many explanations were likely before and after. */
  before: number;
  after: number;
  /** Some that fell. */
  fell: string[];
}

/** An explanation below this share, against the likeliest, counts as ruled out. */
const OUT = 0.02;
const TOLD = 3;

/** What each measurement ruled out, in order. */
export function replay(c: Circuit, measured: readonly Observation[]): ReplayStep[] {
  const r = reasonOf(c);
  const standing = (seen: readonly Observation[]) => {
    const j = r.judge(seen, { wrong: true });
    const top = j.suspects[0]?.share ?? 1;
    return new Map(j.suspects.filter((s) => s.share > OUT * top).map((s) => [s.faults.map((f) => f.id).join(), s]));
  };
  let before = standing([]);
  const first = [...new Map(measured.map((o) => [keyOf(o.q), o])).values()];
  return first.map((o, i) => {
    const after = standing(first.slice(0, i + 1));
    const fell = [...before].filter(([k]) => !after.has(k)).map(([, s]) => s.faults[0]!.says);
    const step = { o, before: before.size, after: after.size, fell: fell.slice(0, TOLD) };
    before = after;
    return step;
  });
}
