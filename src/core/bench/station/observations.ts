import type { Circuit } from "../../circuit";
import { findPin } from "../../parts/catalogue";
import { fingerprint, splitEnd } from "../../project";
import { SIGHTS, type Observation, type Question, type Sight } from "../reason/questions";
import { checklist, seenOf, type CheckItem } from "../steps";
import type { Unit } from "../steps/reading";

const UNITS: Record<Question["kind"], Unit> = {
  beep: "beep",
  ohm: "Ω",
  volt: "V",
  part: "word",
  console: "word",
  plan: "word",
  scan: "word",
  sight: "word",
  upload: "word",
};
export const unitOf = (q: Question): Unit => UNITS[q.kind];

/** The question that a stored entry answers, as long as what it was asked of is in the plan. */
export function questionOf(c: Circuit, id: string): Question | null {
  const [kind = "", a = "", b = ""] = id.split(" ");
  const isPin = (end: string) => {
    const { ref, pin } = splitEnd(end);
    const part = c.netlist.instance(ref)?.part;
    return part !== undefined && findPin(part, pin) !== undefined;
  };
  const isHost = c.netlist.expanded.hosts.includes(a);
  switch (kind) {
    case "beep":
    case "ohm":
    case "volt":
      return isPin(a) && isPin(b) ? { kind, a, b } : null;
    case "part":
      return c.netlist.instance(a) ? { kind, ref: a } : null;
    case "console":
    case "plan":
    case "upload":
      return isHost ? { kind, host: a } : null;
    case "scan":
      return isHost && b ? { kind, host: a, bus: b } : null;
    case "sight":
      return (SIGHTS as readonly string[]).includes(a) ? { kind, what: a as Sight } : null;
    default:
      return null;
  }
}

/** Everything that was measured and seen on the bench of a project, as far as it is of this plan. A tick counts as what a sound build shows. */
export function observationsOf(c: Circuit): Observation[] {
  const plan = fingerprint(c.project);
  const byId = new Map<string, CheckItem>(checklist(c).map((i) => [i.id, i]));
  return c.project.bench.flatMap((e): Observation[] => {
    const q = e.list === "checks" ? questionOf(c, e.id) : null;
    if (!q) return [];
    if (e.reading) {
      const seen = seenOf({ unit: unitOf(q), q }, e.reading, plan);
      return seen === null ? [] : [{ q, seen }];
    }
    const word = byId.get(e.id)?.word;
    // A part that was only ticked was not seen with this plan's program.
    return e.done && word && unitOf(q) !== "word" ? [{ q, seen: word }] : [];
  });
}
