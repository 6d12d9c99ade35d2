import { isLaid, type RunRow } from "../build";
import type { LessonLevel } from "../project";

/**
 * How long a pair of learners takes, seconds: our own estimates, on the slow side, since a lesson that ends early is easily
 * filled and one that ends late is not. `solder` is one pin.
 */
export const PACE = {
  "7-11": { wire: 75, place: 75, look: 60, solder: 40, question: 150, measure: 60, fault: 720 },
  "11-14": { wire: 50, place: 50, look: 45, solder: 25, question: 120, measure: 40, fault: 600 },
  "14+": { wire: 35, place: 35, look: 30, solder: 20, question: 120, measure: 25, fault: 480 },
} as const satisfies Record<LessonLevel, object>;

const pinsIn = (note: string) => Number(/(\d+) pins?/.exec(note)?.[1] ?? 4);

/** How long a row of the run sheet takes, seconds. */
export function secondsOf(r: RunRow, level: LessonLevel): number {
  const p = PACE[level];
  if (isLaid(r)) return p.wire;
  if (r.kind === "solder") return Math.max(60, p.solder * pinsIn(r.note));
  if (r.kind === "turn") return p.place;
  return p.look;
}
