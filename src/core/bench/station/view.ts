import type { Circuit } from "../../circuit";
import type { BasicEdit } from "../../project";
import { fingerprint } from "../../project";
import { faultsOf } from "../faults";
import { labelOf } from "../reason/likely";
import {
  ask,
  experimentsOf,
  grouped,
  keyOf,
  observed,
  reasonOf,
  shown,
  type Answer,
  type Experiment,
  type Observation,
  type Question,
  type Reason,
} from "../reason";
import { checklist, judgeReading, seenOf, type CheckItem } from "../steps";
import { observationsOf, questionOf, unitOf } from "./observations";

/** One suspect as the station shows it. */
export interface SuspectView {
  /** Identities of its faults, joined; empty: nothing is wrong. */
  id: string;
  says: string;
  mend: string[];
  others: string[];
  share: number;
  for: string[];
  against: { seen: string; expected: string }[];
  at: string[];
  minutes: number;
}

/** What is known of a build that does not do what it should. */
export interface BenchView {
  observed: number;
  odd: { id: string; says: string; sound: string }[];
  suspects: SuspectView[];
  pairs: boolean;
  /** What to measure next, as a check like any other. */
  next: (CheckItem & { bits: number }) | null;
  /** What can be tried without a meter, one change at a time; none while nothing is odd. */
  experiments: Experiment[];
  /** Powering may destroy something: measured without power first. */
  danger: boolean;
}

const SHOWN = 6;
const DANGER = 0.05;

const WHY: Partial<Record<Question["kind"], string>> = {
  beep: "without power, meter on beep",
  ohm: "without power, meter on ohms",
  volt: "with power, meter on volts",
};

/** A question of the reasoning as a check: with what a sound build shows. */
export function itemOf(r: Reason, c: Circuit, q: Question): CheckItem {
  const there = checklist(c).find((i) => i.id === keyOf(q));
  if (there) return there;
  const sound: Answer = r.shows(r.singles[0]!, q);
  const unit = unitOf(q);
  const number = typeof sound === "number" && Number.isFinite(sound) ? sound : null;
  const share = unit === "Ω" ? 0.1 : 0.05;
  const spread = number === null ? 0 : Math.max(unit === "V" ? 0.1 : 1, Math.abs(number) * share);
  const round = (v: number) => Number(v.toPrecision(3));
  const [from, to] = "a" in q ? [q.a, q.b] : ["ref" in q ? q.ref : "host" in q ? q.host : "", ""];
  return {
    id: keyOf(q),
    when: WHY[q.kind] === undefined ? "bring-up" : q.kind === "volt" ? "first power" : "before power",
    what: ask(r.laid, q),
    from,
    to,
    low: number === null ? null : round(number - spread),
    high: number === null ? null : round(number + spread),
    word: number === null ? (sound === null ? "" : String(sound)) : null,
    unit,
    why: WHY[q.kind] ?? "",
    q,
  };
}

/** What was seen comes to: what is odd, who is suspect, what to measure next. Takes a moment for a large plan. */
export function benchView(c: Circuit): BenchView {
  const r = reasonOf(c);
  const seen = observationsOf(c);
  const odd = r.odd(seen);
  const j = r.judge(seen, { wrong: odd.length > 0 });
  const none = r.singles[0]!;
  return {
    observed: seen.length,
    odd: odd.map((o) => ({ id: keyOf(o.q), says: observed(o), sound: shown(o.q, r.shows(none, o.q)) })),
    suspects: odd.length
      ? grouped(r, j)
          .slice(0, SHOWN)
          .map((g) => ({
            id: g.faults.map((f) => f.id).join(" + "),
            says: g.faults.length
              ? g.faults.map((f) => f.says).join(", and: ")
              : "Nothing is wrong: a reading was mistaken",
            mend: g.faults.map((f) => f.mend),
            others: g.others.map((f) => f.says),
            share: g.share,
            for: g.for.map(observed),
            against: g.against.map((x) => ({ seen: observed(x.o), expected: shown(x.o.q, x.shown) })),
            at: g.faults.flatMap((f) => f.at),
            minutes: g.minutes,
          }))
      : [],
    pairs: j.pairs,
    next: j.next && { ...itemOf(r, c, j.next.q), bits: j.next.bits },
    experiments: odd.length ? experimentsOf(r, j, 4) : [],
    danger: odd.length > 0 && j.danger > DANGER,
  };
}

/** What is to be forgotten and written down when somebody has mended a fault: all that it touched is asked again. */
export function mended(c: Circuit, id: string, at: string): BasicEdit[] {
  const r = reasonOf(c);
  const faults = id.split(" + ").flatMap((x) => faultsOf(r.laid).find((f) => f.id === x) ?? []);
  const states = faults.map((f) => r.singles.find((h) => h.faults[0] === f)!);
  const none = r.singles[0]!;
  const touched = (o: Observation) =>
    states.some((h) => labelOf(r.shows(h, o.q)) !== labelOf(r.shows(none, o.q))) || r.odd([o]).length > 0;
  const entries = c.project.bench.flatMap((e): BasicEdit[] => {
    const q = e.list === "checks" ? questionOf(c, e.id) : null;
    if (!q) return [];
    const seen = observationsOf(c).find((o) => keyOf(o.q) === e.id);
    return seen && touched(seen) ? [{ type: "tick", list: "checks", id: e.id, done: false, at }] : [];
  });
  const says = faults.map((f) => f.id).join(" + ") || id;
  return [...entries, { type: "tick", list: "log", id: `${at} mended`, done: true, reading: says.slice(0, 80), at }];
}

/** What a console's log says, as readings to store: with the plan that they were seen with. */
export function ticksOf(c: Circuit, list: readonly Observation[], at: string): BasicEdit[] {
  const plan = fingerprint(c.project);
  const byId = new Map(checklist(c).map((i) => [i.id, i]));
  return list.map((o): BasicEdit => {
    const id = keyOf(o.q);
    const reading = `${o.seen === "" ? "none" : o.seen} ${plan}`.slice(0, 80);
    const i = byId.get(id);
    const seen = i && seenOf(i, reading, plan);
    return {
      type: "tick",
      list: "checks",
      id,
      done: i && seen !== null && seen !== undefined ? judgeReading(i, seen) : !reasonOf(c).odd([o]).length,
      reading,
      at,
    };
  });
}
