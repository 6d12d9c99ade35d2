import { usbTell } from "../usb/ways";
import { driverOf } from "../drivers";
import type { DriverPart, RuleCode } from "../types";
import type { Quantity } from "../devices/types";
import type { Acts, Resolved, Seen, Test } from "./resolve";
import { told } from "./resolve";

/** How a language writes what rules are made of. */
export interface Tongue {
  of(p: DriverPart): RuleCode | undefined;
  and: string;
  or: string;
  choice(test: string, a: string, b: string): string;
  divide(a: string, b: number): string;
  within(a: string, least: number, most: number): string;
  /** A quantity as a whole number of 32 bits, whatever it is kept in. */
  wide(a: string): string;
}

/** Whether it holds, as an expression; `held`: whether it held at the last look. What does not answer holds nothing. */
export function holds(t: Tongue, seen: Seen, test: Test, held: string): string {
  const code = t.of(seen.part)!;
  const fresh = code.fresh?.(seen.part);
  if (test.op === "between") {
    const [hour, minute] = [test.hour, test.minute].map((q) => t.wide(code.value!(seen.part, q)));
    const now = `${hour} * 60 + ${minute}`;
    const within = `(${now} >= ${test.from} ${test.from < test.to ? t.and : t.or} ${now} < ${test.to})`;
    return fresh ? `${fresh} ${t.and} ${within}` : within;
  }
  const value = t.wide(code.value!(seen.part, seen.quantity));
  const plain =
    test.op === "is"
      ? `${value} == ${test.at}`
      : test.op === "above"
        ? `${value} > ${test.back ? t.choice(held, String(test.at - test.back), String(test.at)) : test.at}`
        : `${value} < ${test.back ? t.choice(held, String(test.at + test.back), String(test.at)) : test.at}`;
  return fresh ? `${fresh} ${t.and} ${plain}` : plain;
}

/** The minutes of a day. */
export const DAY: readonly [number, number] = [0, 24 * 60 - 1];

/**
 * What an output is told when it follows: a number as it is read, anything else as far along
 * as the quantity is in a room. Of the time of day a number is hours and minutes side by side: 1945.
 */
export function followed(t: Tongue, { seen, time, acts }: Extract<Resolved, { kind: "follow" }>): string {
  const of = (q: Quantity) => t.wide(t.of(seen.part)!.value!(seen.part, q));
  const { takes } = acts;
  const number = takes.word === "number" || takes.word === "digit";
  const value = time ? `(${of(time.hour)} * ${number ? 100 : 60} + ${of(time.minute)})` : of(seen.quantity);
  if (number)
    return t.within(
      seen.quantity.digits ? t.divide(value, 10 ** seen.quantity.digits) : value,
      takes.range[0],
      takes.range[1],
    );
  const [a, b] = time ? DAY : seen.quantity.room;
  const [c, d] = takes.range;
  // In steps that stay within 32 bits; a reading beyond what can be in a room counts as its end.
  const shift = Math.max(1, Math.ceil(((b - a) * Math.abs(d - c)) / 2_000_000_000));
  const from = `(${t.within(value, a, b)} - ${a})`;
  return t.within(
    `${t.divide(`${shift > 1 ? t.divide(from, shift) : from} * ${d - c}`, Math.round((b - a) / shift))} + ${c}`,
    c,
    d,
  );
}

/** Outputs of all rules, each once, in order. */
export const outputsOf = (rules: readonly Resolved[]): Acts[] => [
  ...new Map(rules.flatMap((r) => told(r).map((a) => [a.part.id, a] as const))).values(),
];

/** Outputs that keep what an event has made of them. */
export const keptOf = (rules: readonly Resolved[]): Set<string> =>
  new Set(rules.flatMap((r) => ("does" in r ? told(r).map((a) => a.part.id) : [])));
/** What was begun for a while and has come to its end, before anything begins: one variable a rule. */
export const lastsOf = (rules: readonly Resolved[]) =>
  rules.flatMap((r, i) => ("does" in r && r.does.act === "for" ? [{ i, acts: r.does.acts, ms: r.does.ms }] : []));
/** What goes through a sequence, one a rule, with the times at which its steps end. */
export const sequencesOf = (rules: readonly Resolved[]) =>
  rules.flatMap((r, i) => ("does" in r && r.does.act === "sequence" ? [{ i, ...r.does }] : []));
/** What is sent to the computer is told by the board itself; that is written in sketches. */
const SENT: Record<"sketch" | "micropython", RuleCode | undefined> = {
  sketch: { tell: usbTell },
  micropython: undefined,
};
export const codeOf = (p: DriverPart, target: "sketch" | "micropython") =>
  p.usb ? SENT[target] : driverOf(p)?.rules?.[target];
/** Everything that rules send to the computer. */
export const sentBy = (rules: readonly Resolved[]): DriverPart[] =>
  outputsOf(rules).flatMap((a) => (a.part.usb ? [a.part] : []));
