import { told, type Acts, type Does, type Resolved, type Seen, type Test } from "../rules/resolve";
import { DAY, lastsOf, outputsOf, sequencesOf } from "../rules/print";
import type { Quantity } from "../devices/types";
import type { DriverPart } from "../types";

/** What rules go by and tell. */
export interface Ruling {
  /** A part's whole number, or null while there is none. */
  value(p: DriverPart, quantity: string): number | null;
  tell(p: DriverPart, value: number): void;
  /** A line of all readings to a card. */
  log(card: DriverPart): void;
}

const within = (v: number, least: number, most: number) => Math.max(least, Math.min(most, v));

function holds(r: Ruling, seen: Seen, test: Test, held: boolean): boolean {
  const at = (q: { name: string }) => r.value(seen.part, q.name);
  if (test.op === "between") {
    const [hour, minute] = [at(test.hour), at(test.minute)];
    if (hour === null || minute === null) return false;
    const now = hour * 60 + minute;
    return test.from < test.to ? now >= test.from && now < test.to : now >= test.from || now < test.to;
  }
  const v = at(seen.quantity);
  if (v === null) return false;
  if (test.op === "is") return v === test.at;
  if (test.op === "above") return v > (held ? test.at - test.back : test.at);
  return v < (held ? test.at + test.back : test.at);
}

/** What an output is told when it follows: as the other targets count it. */
function followed(
  value: (q: Quantity) => number | null,
  { seen, time, acts: { takes } }: Extract<Resolved, { kind: "follow" }>,
): number | null {
  const [c, d] = takes.range;
  const number = takes.word === "number" || takes.word === "digit";
  const [hour, minute] = time ? [value(time.hour), value(time.minute)] : [value(seen.quantity), 0];
  if (hour === null || minute === null) return null;
  const v = time ? hour * (number ? 100 : 60) + minute : hour;
  if (number) return within(Math.trunc(v / 10 ** seen.quantity.digits), c, d);
  const [a, b] = time ? DAY : seen.quantity.room;
  const shift = Math.max(1, Math.ceil(((b - a) * Math.abs(d - c)) / 2_000_000_000));
  const from = Math.trunc((within(v, a, b) - a) / shift);
  return within(Math.trunc((from * (d - c)) / Math.round((b - a) / shift)) + c, c, d);
}

/** All rules of a program: every `look` is one turn of their task. */
export interface RulesTask {
  look(now: number): void;
  /** When anything was last under way, or one of these outputs was told something else than to rest. */
  busy(): number;
}

/** The task of all rules; null when there are none. */
export function rulesOf(rules: readonly Resolved[], ruling: Ruling, watched: readonly Acts[] = []): RulesTask | null {
  if (!rules.length) return null;
  let busy = 0;
  const outs = outputsOf(rules);
  const held = rules.map(() => false);
  const turn = rules.map((r) => ("does" in r && r.does.act === "next" ? r.does.among.length - 1 : 0));
  const next = rules.map((r) => (r.kind === "every" ? r.ms : 0));
  const since = rules.map((): number | null => null);
  const step = rules.map((): { at: number; left: number } | null => null);
  /** What an event has made of them. */
  const kept = new Map<string, number>();
  for (const r of rules) if ("does" in r) for (const a of told(r)) kept.set(a.part.id, a.takes.rest);
  const now_of = (a: Acts) => kept.get(a.part.id)!;
  const ONCE: { [K in Does["act"]]: (d: Extract<Does, { act: K }>, i: number, now: number) => void } = {
    toggle: ({ acts }) => kept.set(acts.part.id, now_of(acts) === acts.takes.rest ? acts.on : acts.takes.rest),
    count: ({ acts }) =>
      kept.set(acts.part.id, now_of(acts) >= 0 && now_of(acts) < acts.takes.range[1] ? now_of(acts) + 1 : 0),
    for: ({ acts }, i, now) => {
      kept.set(acts.part.id, acts.on);
      since[i] = now;
    },
    log: ({ acts }) => ruling.log(acts.part),
    sequence: ({ acts, steps, times }, i, now) => {
      kept.set(acts.part.id, steps[0]!.value);
      step[i] = { at: 0, left: times };
      since[i] = now;
    },
    next: ({ among }, i) => {
      turn[i] = (turn[i]! + 1) % among.length;
      among.forEach((a, k) => kept.set(a.part.id, turn[i] === k ? a.on : a.takes.rest));
    },
  };
  const once = (d: Does, i: number, now: number) =>
    (ONCE[d.act] as (d: Does, i: number, now: number) => void)(d, i, now);
  const look = (now: number) => {
    for (const { i, acts, ms } of lastsOf(rules))
      if (since[i] !== null && now - since[i]! >= ms) {
        since[i] = null;
        kept.set(acts.part.id, acts.takes.rest);
      }
    for (const { i, acts, steps } of sequencesOf(rules)) {
      const s = step[i];
      if (!s || now - since[i]! < steps[s.at]!.ms) continue;
      since[i]! += steps[s.at]!.ms;
      if (++s.at === steps.length) {
        s.at = 0;
        s.left--;
      }
      if (!s.left) step[i] = null;
      kept.set(acts.part.id, s.left ? steps[s.at]!.value : acts.takes.rest);
    }
    for (const [i, r] of rules.entries()) {
      if (r.kind === "each") {
        const was = held[i]!;
        held[i] = holds(ruling, r.seen, r.test, was);
        if (held[i] && !was) once(r.does, i, now);
      } else if (r.kind === "every" && now >= next[i]!) {
        next[i] = next[i]! + r.ms;
        // Far behind, as after a sleep, it begins anew.
        if (next[i]! <= now) next[i] = now + r.ms;
        once(r.does, i, now);
      }
    }
    const told = new Map(outs.map((a) => [a.part.id, kept.get(a.part.id) ?? a.takes.rest]));
    for (const [i, r] of rules.entries()) {
      if (r.kind === "while") {
        held[i] = holds(ruling, r.seen, r.test, held[i]!);
        if (held[i]) told.set(r.acts.part.id, r.value);
      } else if (r.kind === "follow") {
        const v = followed((q) => ruling.value(r.seen.part, q.name), r);
        if (v !== null) told.set(r.acts.part.id, v);
      }
    }
    for (const a of outs) ruling.tell(a.part, told.get(a.part.id)!);
    if (
      since.some((t, i) => t !== null && lastsOf(rules).some((l) => l.i === i)) ||
      step.some((x) => x !== null) ||
      watched.some((a) => told.get(a.part.id) !== a.takes.rest)
    )
      busy = now;
  };
  return { look, busy: () => busy };
}
