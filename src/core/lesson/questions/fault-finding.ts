import { ask, reasonOf, shown, type Observation } from "../../bench/reason";
import { complaint, deal, levelsOf } from "../../bench/trainer/trainer";
import { at, type Asked, type Asker } from "./types";

/** Faults of these seeds are asked about; the bench's own sets begin elsewhere. */
const SEEDS = [3, 5, 11];
const MOST_SUSPECTS = 3;

/** A complaint, the likeliest faults, and the measurement that tells most: as the bench reasons about this plan. */
export const faultFinding: Asker = {
  aim: "fault-finding",
  ask(c, level) {
    const r = reasonOf(c);
    const there = levelsOf(c).filter((l) => l === "visible" || l === "continuity");
    const seen = new Set<string>();
    return there.flatMap((l) =>
      SEEDS.flatMap((seed): Asked[] => {
        const dealt = deal(c, l, seed);
        if (!dealt) return [];
        const says = complaint(c, dealt);
        const hidden = r.singles.find((h) => h.faults[0] === dealt.faults[0]);
        if (!hidden || !says.length || seen.has(says.join())) return [];
        seen.add(says.join());
        const told: Observation[] = r.questions
          .filter((q) => q.kind === "part" || q.kind === "console" || q.kind === "sight")
          .flatMap((q) => {
            const a = r.shows(hidden, q);
            // Nobody tells of what is not to be seen.
            if (a === null || (q.kind === "sight" && a === r.shows(r.singles[0]!, q))) return [];
            return [{ q, seen: a }];
          });
        const j = r.judge(told, { wrong: true });
        const suspects = j.suspects.filter((s) => s.faults.length).slice(0, MOST_SUSPECTS);
        if (!suspects.length) return [];
        return [
          {
            id: `complaint ${l} ${seed}`,
            ask: at(
              level,
              `Everything is wired, and: ${says.join(" ")} Name one thing that may be wrong.`,
              `Everything is wired, and: ${says.join(" ")} Name two things that may be wrong, the likelier first. What would you measure?`,
              `Everything is wired, and: ${says.join(" ")} List what may be wrong, the likeliest first, and the one measurement that tells them apart best.`,
            ),
            answer: `${suspects.map((s) => s.faults[0]!.says).join("; ")}.${j.next && level !== "7-11" ? ` Next: ${ask(r.laid, j.next.q)} Sound: ${shown(j.next.q, j.next.sound)}.` : ""}`,
          },
        ];
      }),
    );
  },
};
