import type { Rule } from "../../project";
import type { Quantity, Takes } from "../devices/types";
import { driverOf } from "../drivers";
import type { DriverPart } from "../types";

/** An input of a rule as the program has it. */
export interface Seen {
  part: DriverPart;
  quantity: Quantity;
  /** The quantity's place among those of its part. */
  k: number;
}
/** An output of a rule as the program has it. */
export interface Acts {
  part: DriverPart;
  takes: Takes;
  /** What "on" means for it. */
  on: number;
}

/** A rule with its numbers as the program counts them. */
export type Resolved = { says: string } & (
  | { kind: "while"; seen: Seen; test: Test; acts: Acts; value: number }
  | { kind: "each"; seen: Seen; test: Test; does: Does }
  | { kind: "every"; ms: number; does: Does }
  | { kind: "follow"; seen: Seen; acts: Acts }
);
export type Test = { op: "above" | "below"; at: number; back: number } | { op: "is"; at: number };
export type Does =
  { act: "toggle"; acts: Acts } | { act: "count"; acts: Acts } | { act: "next"; among: readonly Acts[] };

/** What a quantity is called in a rule: its name without its unit's fraction. */
export const outName = (q: Quantity) => q.name.split("_")[0]!;

export const givesOf = (p: DriverPart): readonly Quantity[] => driverOf(p)?.gives?.(p) ?? [];
export const takesOf = (p: DriverPart): Takes | null => driverOf(p)?.takes?.(p) ?? null;

const seenOf = (parts: readonly DriverPart[], ref: string, out: string): Seen | string => {
  const part = parts.find((p) => p.ref === ref);
  if (!part) return `${ref} is not worked by this board's program`;
  const list = givesOf(part);
  const k = list.findIndex((q) => outName(q) === out || q.name === out);
  return k >= 0
    ? { part, quantity: list[k]!, k }
    : `${part.label} does not give "${out}"${list.length ? `; it gives ${list.map(outName).join(", ")}` : ""}`;
};
const actsOf = (parts: readonly DriverPart[], ref: string): Acts | string => {
  const part = parts.find((p) => p.ref === ref);
  if (!part) return `${ref} is not worked by this board's program`;
  const takes = takesOf(part);
  return takes ? { part, takes, on: takes.on ?? takes.range[1] } : `${part.label} can't be told anything by a rule`;
};

const scaled = (q: { digits: number }, v: number) => Math.round(v * 10 ** q.digits);

function testOf(when: Rule["when"], q: Quantity): Test {
  if ("above" in when) return { op: "above", at: scaled(q, when.above), back: scaled(q, when.hysteresis ?? 0) };
  if ("below" in when) return { op: "below", at: scaled(q, when.below), back: scaled(q, when.hysteresis ?? 0) };
  return { op: "is", at: "is" in when ? scaled(q, when.is) : 0 };
}

/** What no reading ever is: programs count in 32 bits. */
const MOST = 2 ** 31 - 1;
const tooMuch = (t: Test): boolean => Math.abs(t.at) + ("back" in t ? t.back : 0) > MOST;

/** A rule by the parts of one board, or why it can't be done there. `says`: its sentence. */
export function resolve(r: Rule, parts: readonly DriverPart[], says: string): Resolved | string {
  const acts = actsOf(parts, r.do.ref);
  if (typeof acts === "string") return acts;
  const seen = "ref" in r.when ? seenOf(parts, r.when.ref, r.when.out) : null;
  if (typeof seen === "string") return seen;
  if (seen && tooMuch(testOf(r.when, seen.quantity)))
    return `${seen.part.label} can never be ${"above" in r.when ? r.when.above : "below" in r.when ? r.when.below : "is" in r.when ? r.when.is : 0}`;
  const does = (): Does | string => {
    if (r.do.act === "count" || r.do.act === "toggle") return { act: r.do.act, acts };
    const among = ("among" in r.do ? [r.do.ref, ...r.do.among.filter((x) => x !== r.do.ref)] : [r.do.ref]).map((x) =>
      actsOf(parts, x),
    );
    const bad = among.find((x) => typeof x === "string");
    return bad ?? { act: "next", among: among as Acts[] };
  };
  if (r.do.act === "follow") return seen ? { says, kind: "follow", seen, acts } : "it follows nothing";
  if (r.do.act === "toggle" || r.do.act === "count" || r.do.act === "next") {
    const d = does();
    if (typeof d === "string") return d;
    if ("every_s" in r.when) return { says, kind: "every", ms: Math.round(r.when.every_s * 1000), does: d };
    return { says, kind: "each", seen: seen!, test: testOf(r.when, seen!.quantity), does: d };
  }
  if (!seen) return "it needs something to go by";
  const value = r.do.act === "on" ? acts.on : "value" in r.do ? scaled(acts.takes, r.do.value) : acts.takes.rest;
  const [least, most] = acts.takes.range;
  if ("value" in r.do && (value < least || value > most))
    return `${acts.part.label} takes ${least / 10 ** acts.takes.digits} to ${most / 10 ** acts.takes.digits}, not ${r.do.value}`;
  return { says, kind: "while", seen, test: testOf(r.when, seen.quantity), acts, value };
}

/** All parts that a resolved rule tells something. */
export const told = (r: Resolved): readonly Acts[] =>
  r.kind === "while" || r.kind === "follow" ? [r.acts] : r.does.act === "next" ? r.does.among : [r.does.acts];
