import { splitEnd } from "../../project";
import { minutesOf, type Fault } from "../faults";
import { named, standing } from "../faults/around";
import { both, type Change } from "../laid/change";
import type { Laid } from "../laid/laid";
import { stateOf, type State } from "../laid/state";
import { labelOf } from "./likely";
import { isTold, keyOf, type Question } from "./questions";
import type { Judged, Reason, Suspect } from "./reason";

/** What an experiment may show, and which explanations would then be left. */
export interface Outcome {
  shows: string;
  share: number;
  /** Faults by their identities, pairs joined. */
  left: readonly string[];
  means: readonly string[];
  /** It mends the build: nothing else has to be looked for. */
  mends: boolean;
}

/** One thing changed by hand, without a meter: what the program's lines tell then. */
export interface Experiment {
  id: string;
  does: string;
  /** Bits that it tells on average. */
  bits: number;
  minutes: number;
  outcomes: readonly Outcome[];
}

/** Uploading nothing, only resetting and reading the lines, minutes. */
const RUN_MIN = 0.5;
const PULL_MIN = 1;
/** Mending is tried for so many of the most likely. */
const TRIED = 8;
const MOST_SUSPECTS = 40;
const LEAST_BITS = 0.05;
const MOST_DANGER = 0.05;
const MOST_MEANT = 3;
const MENDED = "everything works";
/** Of a fault that the lines never show. */
const UNCHANGED = "the lines are as before";

const idOf = (faults: readonly Fault[]) => faults.map((f) => f.id).join(" + ");
const saysOf = (faults: readonly Fault[]) => faults.map((f) => f.says).join(", and: ") || "nothing is wrong";

/** Wires of a part, all pulled. */
const pulled = (laid: Laid, ref: string): Change => ({
  cut: laid.wires.flatMap((w) => (!w.cable && [w.a, w.b].some((e) => splitEnd(e).ref === ref) ? [w.i] : [])),
});

/** What is left of a change when a part is pulled: nothing that hangs on its pins. */
const withoutPart = (change: Change, ref: string): Change => ({
  ...change,
  ...(change.join && { join: change.join.filter((j) => j.every((e) => splitEnd(e).ref !== ref)) }),
});

/** What the program's lines tell of a build, apart from one part: questions and answers. */
function linesOf(r: Reason, s: State, apart: string | null): Map<string, { q: Question; says: string }> {
  const told = r.questions.filter(
    (q) => isTold(q) && (q.kind === "console" || q.kind === "scan" || (q.kind === "part" && q.ref !== apart)),
  );
  return new Map(told.map((q) => [keyOf(q), { q, says: labelOf(r.answer(s, q)) }]));
}

/** Lines in a few words, against those of a build in which nothing is wrong. */
function inWords(
  laid: Laid,
  lines: ReturnType<typeof linesOf>,
  sound: ReturnType<typeof linesOf>,
  all: string,
): string {
  const off = [...lines].filter(([k, x]) => sound.get(k)!.says !== x.says).map(([, x]) => x.q);
  const silent = off.find((q) => q.kind === "console");
  if (silent && silent.kind === "console") return `${named(laid, silent.host)} prints nothing`;
  const parts = off.flatMap((q) => (q.kind === "part" ? [named(laid, q.ref)] : []));
  if (parts.length) return `${parts.join(", ")} ${parts.length === 1 ? "does" : "do"} not work`;
  return off.length ? "the scan finds other addresses" : all;
}

/** Explanations by what they would show, as outcomes; null where all show the same. */
function outcomesOf(list: readonly { g: Suspect; shows: string }[]): { bits: number; outcomes: Outcome[] } {
  const sum = list.reduce((s, x) => s + x.g.share, 0) || 1;
  const by = new Map<string, Suspect[]>();
  for (const { g, shows } of list) by.set(shows, [...(by.get(shows) ?? []), g]);
  const outcomes = [...by]
    .map(([shows, gs]): Outcome => ({
      shows,
      share: gs.reduce((s, g) => s + g.share, 0) / sum,
      left: gs.map((g) => idOf(g.faults)),
      mends: shows === MENDED,
      means: gs.slice(0, MOST_MEANT).map((g) => saysOf(g.faults)),
    }))
    .sort((a, b) => b.share - a.share);
  return { bits: outcomes.reduce((H, o) => (o.share > 0 ? H - o.share * Math.log2(o.share) : H), 0), outcomes };
}

/**
 * A plan of experiments for somebody without a meter or an analyser: one change at a time, after each the program's lines are
 * looked at, and it is taken back. Ordered by bits per minute. Empty while something could be destroyed by powering, or when the
 * lines can tell nothing more.
 */
export function experimentsOf(r: Reason, judged: Judged, most = 5): Experiment[] {
  if (judged.danger > MOST_DANGER) return [];
  const { laid } = r;
  const suspects = judged.suspects.slice(0, MOST_SUSPECTS);
  const changeOf = (g: Suspect) => g.faults.map((f) => f.change).reduce(both, {});
  const stateNow = new Map(suspects.map((g) => [g, stateOf(laid, changeOf(g))]));
  const soundNow = linesOf(r, r.sound, null);
  const words = (s: State, apart: string | null, sound: typeof soundNow, all: string) =>
    inWords(laid, linesOf(r, s, apart), sound, all);

  // Pulling something that nobody suspects tells little.
  const suspected = new Map<string, number>();
  for (const s of suspects)
    for (const ref of new Set(s.faults.flatMap((f) => f.at.map((e) => splitEnd(e).ref))))
      suspected.set(ref, (suspected.get(ref) ?? 0) + s.share);
  const likely = standing(laid)
    .filter((inst) => suspected.has(inst.ref) && !inst.part.board && !inst.inserted)
    .sort((a, b) => suspected.get(b.ref)! - suspected.get(a.ref)!)
    .slice(0, TRIED);
  const pulls = likely.flatMap((inst): Experiment[] => {
    const pull = pulled(laid, inst.ref);
    if (!pull.cut!.length) return [];
    const sound = linesOf(r, stateOf(laid, pull), inst.ref);
    const made = outcomesOf(
      suspects.map((g) => ({
        g,
        shows: words(
          stateOf(laid, both(withoutPart(changeOf(g), inst.ref), pull)),
          inst.ref,
          sound,
          "everything else works",
        ),
      })),
    );
    const does = `Pull ${named(laid, inst.ref)} out, run the bring-up again, and push it back in.`;
    return [{ id: `pull ${inst.ref}`, does, minutes: PULL_MIN + RUN_MIN, ...made }];
  });

  const tries = suspects.slice(0, TRIED).flatMap((tried): Experiment[] => {
    const [f] = tried.faults;
    if (!f || tried.faults.length > 1) return [];
    const made = outcomesOf(
      suspects.map((g) => ({
        g,
        shows: g === tried ? MENDED : words(stateNow.get(g)!, null, soundNow, UNCHANGED),
      })),
    );
    return [
      {
        id: `try ${f.id}`,
        does: `${f.says}? ${f.mend} Then run the bring-up again.`,
        minutes: minutesOf(f) + RUN_MIN,
        ...made,
      },
    ];
  });

  return [...pulls, ...tries]
    .filter((e) => e.bits > LEAST_BITS)
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes || (a.id < b.id ? -1 : 1))
    .slice(0, most);
}
