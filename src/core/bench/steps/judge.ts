import { parseReading, type Unit } from "./reading";
import type { Question } from "../reason/questions";
import type { CheckItem } from "./types";

export interface EntryVerdict {
  ok: boolean;
  says: string;
}

/** What a check must show, in words. */
export function wanted(i: CheckItem): string {
  if (i.word !== null)
    return { beep: "beeps", open: "no beep", works: "works", same: "same letters" }[i.word] ?? i.word;
  if (i.low === null) return `at most ${i.high} ${i.unit}`;
  return i.high === null ? `over ${i.low} ${i.unit}` : `${i.low} to ${i.high} ${i.unit}`;
}

/** Words of the program's lines that are kept with the plan that they were seen with: `works BCDFGHJK`. */
const told = (text: string) =>
  /^(works|no|dim|always|silent|same|other|yes|ok|busy|no port|no answer|wrong chip)(?: ([A-Z]{8}))?$/.exec(
    text.trim(),
  );

/** Addresses as a scan lists them: `0x3C, 0x76`, `3c 76`, `none`; sorted, each once. Null: no such list. */
export function addressesIn(text: string): string | null {
  const t = text.trim().toLowerCase();
  if (/^(none|nothing|no|-+)$/.test(t)) return "";
  const list = t.split(/[\s,;]+/).filter(Boolean);
  if (!list.length || !list.every((x) => /^(0x)?[0-7]?[0-9a-f]$/.test(x))) return null;
  return [...new Set(list.map((x) => Number.parseInt(x.replace("0x", ""), 16)))]
    .sort((x, y) => x - y)
    .map((x) => `0x${x.toString(16)}`)
    .join(",");
}

/** What a stored reading says, for reasoning; null: it is no reading, or of another plan. */
export function seenOf(
  i: { unit: Unit; q?: Question | undefined },
  reading: string,
  plan: string,
): number | string | null {
  if (i.q?.kind === "scan") {
    const m = /^(.*?)(?: ([A-Z]{8}))?$/.exec(reading.trim());
    return m && (!m[2] || m[2] === plan) ? addressesIn(m[1]!) : null;
  }
  if (i.unit === "word") {
    const m = told(reading);
    return m && (!m[2] || m[2] === plan) ? m[1]! : null;
  }
  const r = parseReading(reading, i.unit);
  return r.ok ? r.value : null;
}

/** Whether what was seen is what a sound build shows. */
export function judgeReading(i: CheckItem, seen: number | string): boolean {
  if (i.word !== null) return seen === i.word;
  if (typeof seen !== "number") return false;
  return (i.low === null || seen >= i.low) && (i.high === null || seen <= i.high);
}

/** Judges a reading as typed. */
export function judgeEntry(i: CheckItem, text: string, plan: string): EntryVerdict & { seen: number | string | null } {
  if (i.unit !== "word") {
    const r = parseReading(text, i.unit);
    if (!r.ok) return { ok: false, says: r.message, seen: null };
  }
  const seen = seenOf(i, text, plan);
  if (seen === null) return { ok: false, says: `"${text.slice(0, 40)}" says nothing about this`, seen };
  const ok = judgeReading(i, seen);
  return { ok, says: ok ? "as it should be" : `off; it should show: ${wanted(i)}`, seen };
}
