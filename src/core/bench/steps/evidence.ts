import type { Circuit } from "../../circuit";
import { fingerprint, splitEnd } from "../../project";
import { checklist } from "./checklist";
import { judgeReading, seenOf } from "./judge";
import type { CheckItem } from "./types";

/** How far the bench has got: what was found wrong, and whether everything that proves the build is there. */
export interface Evidence {
  /** Checks with a reading that a sound build does not show. */
  wrong: readonly { id: string; what: string; reading: string }[];
  /** Every part was seen to work with the program of this very plan, and nothing is wrong. */
  works: boolean;
  done: number;
  of: number;
}

/** Readings of checks that are in no list stay what they were judged then, as long as what they were taken at is there. */
function stands(c: Circuit, id: string): boolean {
  const [kind, ...ends] = id.split(" ");
  const of = kind === "scan" ? ends.slice(0, 1) : kind === "sight" ? [] : ends;
  return of.every((e) => c.netlist.instance(splitEnd(e).ref) !== undefined);
}

/** What the stored readings of a project come to. */
export function evidenceOf(c: Circuit): Evidence {
  const entries = new Map(c.project.bench.filter((b) => b.list === "checks").map((b) => [b.id, b]));
  const list = checklist(c);
  if (!entries.size) return { wrong: [], works: false, done: 0, of: list.length };
  const plan = fingerprint(c.project);
  const byId = new Map<string, CheckItem>(list.map((i) => [i.id, i]));
  const good = (i: CheckItem) => {
    const e = entries.get(i.id);
    if (!e) return null;
    if (!e.reading) return e.done;
    const seen = seenOf(i, e.reading, plan);
    return seen === null ? null : judgeReading(i, seen);
  };
  const wrong = [...entries.values()].flatMap((e) => {
    const i = byId.get(e.id);
    if (i) return good(i) === false ? [{ id: e.id, what: i.what, reading: e.reading ?? "" }] : [];
    const seenWith = / ([A-Z]{8})$/.exec(e.reading ?? "")?.[1];
    return e.reading && !e.done && stands(c, e.id) && (!seenWith || seenWith === plan)
      ? [{ id: e.id, what: e.id, reading: e.reading }]
      : [];
  });
  const done = list.filter((i) => good(i) !== null).length;
  const lines = list.filter((i) => i.when === "bring-up");
  const proven = (i: CheckItem) => good(i) === true && entries.get(i.id)!.reading?.endsWith(` ${plan}`) === true;
  return { wrong, works: wrong.length === 0 && lines.length > 0 && lines.every(proven), done, of: list.length };
}
