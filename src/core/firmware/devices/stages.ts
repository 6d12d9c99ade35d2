import { parse, type Expression } from "./expression";
import { inARow, plainSteps, type Op } from "./loops";
import type { Device } from "./types";

const namesIn = (e: Expression, out = new Set<string>()): Set<string> => {
  if (e.kind === "name") out.add(e.name);
  if (e.kind === "call") e.args.forEach((a) => namesIn(a, out));
  if (e.kind === "minus") namesIn(e.of, out);
  if (e.kind === "binary") [e.a, e.b].forEach((a) => namesIn(a, out));
  if (e.kind === "choice") [e.if, e.then, e.else].forEach((a) => namesIn(a, out));
  return out;
};
const TEXTS: { [K in Op["do"]]: (s: Extract<Op, { do: K }>) => readonly (number | string)[] } = {
  write: (s) => s.bytes,
  read: () => [],
  wait: () => [],
  until: (s) => [s.holds],
  crc: () => [],
  pin: () => [],
  must: (s) => [s.holds],
  let: (s) => [s.is],
  first: () => [],
  next: (s) => [s.name],
};
const usedBy = (s: Op): Set<string> => {
  const out = new Set<string>();
  for (const t of (TEXTS[s.do] as (s: Op) => readonly (number | string)[])(s))
    if (typeof t === "string") namesIn(parse(t), out);
  return out;
};

/** Names that must outlive a wait: what is worked out in one turn and used in a later one, and what the part gives. */
export function kept(d: Device): Set<string> {
  const out = new Set(d.out.map((q) => q.name));
  // What is told from outside stands beside the turns.
  if (d.takes) out.add("want");
  const begin = inARow(d.begin);
  const read = inARow(d.read);
  const made = new Map<string, number>();
  let turn = 0;
  const go = (s: Op) => {
    if (s.do === "until") turn++;
    // Every round of a loop is a turn of its own; its number outlives all of them.
    if (s.do === "first") {
      out.add(s.name);
      turn++;
    }
    for (const n of usedBy(s)) if ((made.get(n) ?? turn) !== turn) out.add(n);
    if (s.do === "let") made.set(s.name, turn);
    if (s.do === "wait" || s.do === "next") turn++;
  };
  begin.forEach(go);
  // Readings are taken again and again: what came before is of another turn, and what a reading begins with is of the last.
  turn++;
  const made0 = new Set<string>();
  for (const s of read) {
    for (const n of usedBy(s)) if (!made0.has(n) && read.some((r) => r.do === "let" && r.name === n)) out.add(n);
    if (s.do === "let") made0.add(s.name);
  }
  read.forEach(go);
  return out;
}

/** All names that are worked out. */
export const lets = (d: Device): Set<string> =>
  new Set(plainSteps([...d.begin, ...d.read]).flatMap((s) => (s.do === "let" ? [s.name] : [])));
