import type { Circuit } from "../circuit";
import { complaint, deal, LEVELS, levelsOf, scoreOf, type Dealt, type LevelId } from "../bench/trainer/trainer";
import { seedOf } from "../bench/trainer/seed";
import type { LessonLevel } from "../project";
import type { DealtFault } from "./types";

/** What each age is given to find. */
const FOR: Record<LessonLevel, readonly LevelId[]> = {
  "7-11": ["visible"],
  "11-14": ["visible", "continuity", "voltage"],
  "14+": ["continuity", "voltage", "bus", "two"],
};
/** The set of a lesson: the same one each time that it is printed. */
export const SET_SEED = 2026;

/** Measurements that are enough for a fault: worked out once for each, since benches get the same ones. */
const known = new WeakMap<Circuit, Map<string, number>>();
function bestOf(c: Circuit, dealt: Dealt): number {
  const here = known.get(c) ?? new Map<string, number>();
  known.set(c, here);
  const key = dealt.faults.map((f) => f.id).join();
  const there = here.get(key);
  if (there !== undefined) return there;
  const { best } = scoreOf(c, dealt, { measured: [], hints: 0, wrong: 0, minutes: 0, found: false });
  here.set(key, best);
  return best;
}

/** A fault for each bench, levels in turn, with what it shows and the key: dealt in the trainer by level and seed. */
export function faultSet(c: Circuit, level: LessonLevel, benches: number): DealtFault[] {
  const there = levelsOf(c);
  const wanted = FOR[level].filter((l) => there.includes(l));
  const levels = wanted.length ? wanted : there.slice(0, 1);
  if (!levels.length) return [];
  return Array.from({ length: benches }, (_, i): DealtFault[] => {
    const l = levels[i % levels.length]!;
    const seed = seedOf(SET_SEED, i + 1);
    const dealt = deal(c, l, seed);
    if (!dealt) return [];
    return [
      {
        bench: i + 1,
        level: l,
        levelName: LEVELS.find((x) => x.id === l)!.name,
        seed,
        complaint: complaint(c, dealt),
        fault: dealt.faults.map((f) => f.says).join("; and "),
        mend: dealt.faults.map((f) => f.mend).join("; and "),
        best: bestOf(c, dealt),
      },
    ];
  }).flat();
}
