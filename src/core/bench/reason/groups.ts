import type { Fault } from "../faults";
import type { Answer, Observation } from "./questions";
import type { Judged, Reason } from "./reason";

/** Explanations that no measurement can tell apart stand together: the most likely first, with the others behind it. */
export interface Group {
  /** No faults: nothing is wrong. Two: both at once. */
  faults: readonly Fault[];
  others: readonly Fault[];
  share: number;
  for: readonly Observation[];
  against: readonly { o: Observation; shown: Answer }[];
  minutes: number;
}

export function grouped(r: Reason, j: Judged): Group[] {
  const by = new Map(r.singles.map((h) => [h.faults[0]?.id ?? "", h]));
  const out = new Map<string, Group>();
  for (const s of j.suspects) {
    const id = s.faults[0]?.id ?? "";
    const key = s.faults.length > 1 ? s.faults.map((f) => f.id).join(" + ") : r.signature(by.get(id)!);
    const known = out.get(key);
    if (!known) out.set(key, { ...s, others: [] });
    else out.set(key, { ...known, share: known.share + s.share, others: [...known.others, ...s.faults] });
  }
  return [...out.values()].sort((a, b) => b.share - a.share);
}
