import type { Lesson } from "./types";

/** What is printed of a lesson, line by line: what stands on two prints is compared by it. */
export function itemsOf(l: Lesson): Record<string, string> {
  const entries: [string, string][] = [
    ["lesson", `${l.title}: ${l.level}, ${l.minutes} minutes, ${l.benches} benches`],
    ["meetings", l.sessions.map((s) => `${s.minutes} min`).join(" + ")],
    ...l.steps.map((s): [string, string] => [`step ${s.id}`, `${s.title}: ${s.says}`]),
    ...l.questions.map((q): [string, string] => [`question ${q.id}`, `${q.ask} ${q.answer}`]),
    ...l.risks.map((r): [string, string] => [`risk ${r.id}`, `${r.what} (${r.where})`]),
    ...l.extensions.map((e, i): [string, string] => [`extension ${i + 1}`, e.says]),
    ...(l.kits[0]?.lines ?? []).map((k): [string, string] => [`kit ${k.what}`, `${k.number} × ${k.what}`]),
    ...l.faults.map((f): [string, string] => [`fault of bench ${f.bench}`, `${f.levelName}, ${f.seed}: ${f.fault}`]),
  ];
  return Object.fromEntries(entries.slice(0, 2000).map(([k, v]) => [k.slice(0, 120), v.slice(0, 600)]));
}

export interface LessonChange {
  /** `sheets`, `questions`, ... : what has to be printed again. */
  section: string;
  says: string;
}

const SECTIONS: [RegExp, string][] = [
  [/^step/, "learner sheets and slides"],
  [/^question/, "questions and answers"],
  [/^risk/, "risk note"],
  [/^kit/, "kit labels and list"],
  [/^fault/, "fault set"],
  [/^extension/, "extension tasks"],
];
const sectionOf = (key: string) => SECTIONS.find(([r]) => r.test(key))?.[1] ?? "teacher's notes";

/** What is other now than on the last print, each change with the part of the pack that has to be printed again. */
export function changesSince(
  made: Readonly<Record<string, string>>,
  now: Readonly<Record<string, string>>,
): LessonChange[] {
  const keys = [...new Set([...Object.keys(made), ...Object.keys(now)])];
  return keys.flatMap((k): LessonChange[] => {
    const [was, is] = [Object.hasOwn(made, k) ? made[k] : undefined, Object.hasOwn(now, k) ? now[k] : undefined];
    if (was === is) return [];
    const says = was === undefined ? `new: ${is}` : is === undefined ? `gone: ${was}` : `${was} is now ${is}`;
    return [{ section: sectionOf(k), says }];
  });
}
