import type { CheckItem } from "@/core/bench";

/** What a check must show, in few words. */
const WORDS: Record<string, string> = {
  beep: "it beeps",
  open: "no beep",
  works: "it works",
  same: "the same letters",
  no: "no",
  ok: "it uploads",
};

export const wanted = (i: CheckItem): string =>
  i.word !== null
    ? (WORDS[i.word] ?? i.word)
    : i.low === null
      ? `at most ${i.high} ${i.unit}`
      : i.high === null
        ? `over ${i.low} ${i.unit}`
        : `${i.low} to ${i.high} ${i.unit}`;

/** What is typed into a field of this kind, for instance. */
export const EXAMPLES: Record<CheckItem["unit"], string> = {
  beep: "0.3 or OL",
  V: "3.28",
  Ω: "330 or 4.7k",
  mA: "80",
  word: "",
};

/** A reading without the plan that it was seen with. */
export const plainReading = (text: string): string => text.replace(/ [A-Z]{8}$/, "");

const SEEN: Record<string, string> = {
  works: "works",
  no: "does not work",
  dim: "only dimly",
  always: "all the time",
  same: "same letters",
  other: "other letters",
  silent: "nothing printed",
};
export const readingWords = (text: string): string => SEEN[plainReading(text)] ?? plainReading(text);

/** Answers to press instead of typing, by what is asked. */
export function answersTo(i: CheckItem): readonly { says: string; text: string }[] {
  if (i.unit === "beep")
    return [
      { says: "It beeps", text: "beep" },
      { says: "No beep", text: "OL" },
    ];
  if (i.q?.kind === "part")
    return [
      { says: "It works", text: "works" },
      { says: "It does not", text: "no" },
      { says: "Only dimly", text: "dim" },
      { says: "All the time", text: "always" },
    ];
  if (i.q?.kind === "plan" || i.q?.kind === "console")
    return [
      { says: "The same letters", text: i.q.kind === "plan" ? "same" : "works" },
      ...(i.q.kind === "plan" ? [{ says: "Other letters", text: "other" }] : []),
      { says: "Nothing is printed", text: "silent" },
    ];
  if (i.q?.kind === "upload")
    return [
      { says: "It uploads", text: "ok" },
      { says: "No port appears", text: "no port" },
      { says: "The port is in use", text: "busy" },
      { says: "Nothing answers", text: "no answer" },
      { says: "Another chip answers", text: "wrong chip" },
    ];
  if (i.q?.kind === "scan") return [{ says: "Nothing is found", text: "none" }];
  if (i.q?.kind === "sight")
    return [
      { says: "Yes", text: "yes" },
      { says: "No", text: "no" },
    ];
  return [];
}
