import { seedOf } from "../bench/trainer/seed";
import type { BenchEntry } from "../project";
import type { Control, Did, Tell } from "./events";

/** A step of the room's plan, as far as the teacher's view needs it. */
export interface RoomStep {
  id: string;
  title: string;
  sign: boolean;
}
/** An event as it is kept: when it was, by this machine's clock. */
export interface Kept {
  id: string;
  at: string;
  did: Did;
}

/** How far a bench is, folded from what it did. */
export interface BenchState {
  /** Steps done, and the first that is not: its number and title. */
  done: number;
  of: number;
  at: { step: number; title: string; id: string } | null;
  /** When it last got on. */
  since: string | null;
  /** Checks that show what they should, and those that do not, with what was read. */
  good: number;
  wrong: { of: string; reading: string }[];
  hand: { why: string; since: string } | null;
  fault: Extract<Did, { kind: "fault" }> | null;
  /** What the suspects are worked out from. */
  entries: BenchEntry[];
}

/** A later sign of the same thing counts; what came late by the network is put where it belongs. */
const inOrder = (events: readonly Kept[]) => [...events].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));

/** Folds all that a bench did into how far it is. */
export function foldBench(steps: readonly RoomStep[], events: readonly Kept[]): BenchState {
  const ticks = new Map<string, BenchEntry>();
  let hand = null as BenchState["hand"];
  let fault = null as BenchState["fault"];
  let since = null as string | null;
  const known = new Set(steps.map((s) => s.id));
  for (const { at, did } of inOrder(events)) {
    if (did.kind === "tick") {
      const key = `${did.list} ${did.of}`;
      const was = ticks.get(key);
      ticks.set(key, {
        at,
        list: did.list,
        id: did.of,
        done: did.done,
        ...(did.reading !== undefined && { reading: did.reading }),
      });
      if (did.done && !was?.done && (did.list !== "wires" || known.has(did.of))) since = at;
    } else if (did.kind === "hand") hand = did.up ? { why: did.why, since: hand?.since ?? at } : null;
    else fault = did;
  }
  const isDone = (id: string) => ticks.get(`wires ${id}`)?.done === true;
  const next = steps.findIndex((s) => !isDone(s.id));
  const checks = [...ticks.values()].filter((t) => t.list === "checks");
  return {
    done: steps.filter((s) => isDone(s.id)).length,
    of: steps.length,
    at: next < 0 ? null : { step: next + 1, title: steps[next]!.title, id: steps[next]!.id },
    since,
    good: checks.filter((t) => t.done).length,
    wrong: checks.filter((t) => !t.done && t.reading).map((t) => ({ of: t.id, reading: t.reading! })),
    hand,
    fault,
    entries: [...ticks.values()],
  };
}

type Apply = {
  [K in Tell["do"]["kind"]]: (
    c: Control,
    d: Extract<Tell["do"], { kind: K }>,
    bench: number,
    at: string,
  ) => Omit<Control, "rev">;
};
const APPLY: Apply = {
  hint: (c, d, _n, at) => ({ ...c, hint: d.text ? { text: d.text, at } : null }),
  freeze: (c, d) => ({ ...c, frozen: d.on }),
  fault: (c, d, bench) => ({
    ...c,
    fault: d.fault && { level: d.fault.level, seed: d.fault.each ? seedOf(d.fault.seed, bench) : d.fault.seed },
  }),
  sign: (c, d) => ({ ...c, signed: c.signed.includes(d.step) ? c.signed : [...c.signed, d.step] }),
  seen: (c) => c,
};

/** What holds for a bench after the teacher did something. */
export function applyTell(c: Control, what: Tell["do"], bench: number, at: string): Control {
  const apply = APPLY[what.kind] as (c: Control, d: Tell["do"], bench: number, at: string) => Omit<Control, "rev">;
  return { ...apply(c, what, bench, at), rev: c.rev + 1 };
}

/** Who needs the teacher first: hands up, the longest first; then readings that are off; then who has stood longest. */
export function urgency(a: BenchState, b: BenchState): number {
  if (a.hand && b.hand) return a.hand.since < b.hand.since ? -1 : 1;
  if (a.hand || b.hand) return a.hand ? -1 : 1;
  if (a.wrong.length !== b.wrong.length) return b.wrong.length - a.wrong.length;
  return (a.since ?? "") < (b.since ?? "") ? -1 : 1;
}
