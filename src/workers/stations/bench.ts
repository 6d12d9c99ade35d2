import { judgeReading, parseReading, type CheckItem } from "../../core/bench";

/** Readings at the bench. */
export const benchApi = {
  /** Judges a meter reading as typed. */
  reading(item: CheckItem, text: string): { ok: boolean; says: string } {
    const r = parseReading(text, item.unit);
    if (!r.ok) return { ok: false, says: r.message };
    const good = judgeReading(item, r.value);
    const want =
      item.low === null
        ? `at most ${item.high}`
        : item.high === null
          ? `over ${item.low}`
          : `${item.low} to ${item.high}`;
    return { ok: good, says: good ? "as it should be" : `outside: expected ${want} ${item.unit}` };
  },
};
