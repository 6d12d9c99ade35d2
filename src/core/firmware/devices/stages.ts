import { parse, type Expression } from "./expression";
import type { Device, Step } from "./types";

const namesIn = (e: Expression, out = new Set<string>()): Set<string> => {
  if (e.kind === "name") out.add(e.name);
  if (e.kind === "call") e.args.forEach((a) => namesIn(a, out));
  if (e.kind === "minus") namesIn(e.of, out);
  if (e.kind === "binary") [e.a, e.b].forEach((a) => namesIn(a, out));
  if (e.kind === "choice") [e.if, e.then, e.else].forEach((a) => namesIn(a, out));
  return out;
};
const TEXTS: { [K in Step["do"]]: (s: Extract<Step, { do: K }>) => readonly (number | string)[] } = {
  write: (s) => s.bytes,
  read: () => [],
  wait: () => [],
  until: (s) => [s.holds],
  crc: () => [],
  pin: () => [],
  must: (s) => [s.holds],
  let: (s) => [s.is],
};
const usedBy = (s: Step): Set<string> => {
  const out = new Set<string>();
  for (const t of (TEXTS[s.do] as (s: Step) => readonly (number | string)[])(s))
    if (typeof t === "string") namesIn(parse(t), out);
  return out;
};

/** Names that must outlive a wait: what is worked out in one turn and used in a later one, and what the part gives. */
export function kept(d: Device): Set<string> {
  const out = new Set(d.out.map((q) => q.name));
  // What is told from outside stands beside the turns.
  if (d.takes) out.add("want");
  const made = new Map<string, number>();
  let turn = 0;
  const go = (s: Step, later: number) => {
    for (const n of usedBy(s)) if ((made.get(n) ?? later) !== later) out.add(n);
    if (s.do === "let") made.set(s.name, later);
  };
  for (const s of d.begin) {
    if (s.do === "until") turn++;
    go(s, turn);
    if (s.do === "wait") turn++;
  }
  // Readings are taken again and again: what came before is of another turn, and what a reading begins with is of the last.
  turn++;
  const made0 = new Set<string>();
  for (const s of d.read) {
    for (const n of usedBy(s)) if (!made0.has(n) && d.read.some((r) => r.do === "let" && r.name === n)) out.add(n);
    if (s.do === "let") made0.add(s.name);
  }
  for (const s of d.read) {
    if (s.do === "until") turn++;
    go(s, turn);
    if (s.do === "wait") turn++;
  }
  return out;
}

/** All names that are worked out. */
export const lets = (d: Device): Set<string> =>
  new Set([...d.begin, ...d.read].flatMap((s) => (s.do === "let" ? [s.name] : [])));
