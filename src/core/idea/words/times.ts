import { NUMBER_WORDS, numberOf } from "../../quantity";

const NAMED_HOURS: ReadonlyMap<string, number> = new Map([
  ["noon", 12],
  ["midday", 12],
  ["midnight", 0],
]);
const hourOf = (word: string): number => NAMED_HOURS.get(word) ?? numberOf(word);
/** When people mean what they say without a number. */
const DAYTIMES: [RegExp, string][] = [
  [/\bmorning|\bwake\w*|\bbreakfast|sun ?rise|\bdawn/, "07:00"],
  [/\bnoon|\bmidday|\blunch/, "12:00"],
  [/\bafternoon/, "15:00"],
  [/\bevening|\bdusk|sun ?set/, "19:00"],
  [/\bbed ?time/, "20:00"],
  [/\bnight|\blate\b/, "22:00"],
];
const two = (n: number) => String(n).padStart(2, "0");

/** What makes a number no hour: "at 20 °C", "at 30 cm". */
const NO_HOUR =
  "(?! ?(?:°|degrees?|celsius|c\\b|f\\b|%|percent|k?m\\b|cm\\b|mm\\b|met(?:re|er)s?|lux|lx\\b|ppm|hpa|k?g\\b|v\\b|volts?))";
const CLOCK_TIME = new RegExp(
  `\\b(?:at|and|until|till|to|from|by) (?:about )?(half past |quarter past |quarter to )?(?:(\\d{1,2})(?:[:.](\\d\\d))?|(${NUMBER_WORDS}|${[...NAMED_HOURS.keys()].join("|")}))\\b${NO_HOUR} ?(o'?clock|am\\b|pm\\b|in the (?:morning|evening|afternoon)|at night)?`,
  "g",
);

/** Times of the day that the words name, as `07:30`; what comes so many times a day without saying when is spread over it. */
export function timesOf(text: string): string[] {
  const out: string[] = [];
  // "And six" is a time only where one was named before.
  const all = /\bat\b|\bfrom\b|o'?clock|\d[:.]\d\d|\bnoon|\bmidnight/.test(text) ? text.matchAll(CLOCK_TIME) : [];
  for (const m of all) {
    let hour = hourOf(m[2] ?? m[4]!);
    let minute = m[3] !== undefined ? Number(m[3]) : 0;
    const part = m[5] ?? "";
    if (/pm|evening|afternoon|at night/.test(part) && hour < 12) hour += 12;
    if (/am|morning/.test(part) && hour === 12) hour = 0;
    if (m[1] === "half past ") minute = 30;
    if (m[1] === "quarter past ") minute = 15;
    if (m[1] === "quarter to ") [hour, minute] = [(hour + 23) % 24, 45];
    // "At eight and at six": the second is in the evening.
    const last = out.at(-1);
    if (
      !part &&
      !NAMED_HOURS.has(m[4] ?? "") &&
      hour <= 12 &&
      last !== undefined &&
      hour * 60 + minute <= Number(last.slice(0, 2)) * 60
    )
      hour += 12;
    if (hour < 24 && minute < 60) out.push(`${two(hour)}:${two(minute)}`);
  }
  if (out.length) return [...new Set(out)].slice(0, 4);
  const often = /\b(twice|two times|three times|thrice|\d times) (?:a|per|every|each) day/.exec(text)?.[1];
  if (often) return often.startsWith("th") || often[0] === "3" ? ["07:00", "13:00", "19:00"] : ["08:00", "18:00"];
  const said = DAYTIMES.flatMap(([re, t]) => {
    const m = re.exec(text);
    return m ? [[m.index, t] as const] : [];
  }).sort(([a], [b]) => a - b);
  return said.length ? said.map(([, t]) => t) : ["08:00"];
}

/** A time of the day some hours later, over midnight too. */
export const laterBy = (time: string, hours: number): string =>
  `${two((Number(time.slice(0, 2)) + hours) % 24)}:${time.slice(3)}`;

/** Two times of the day between which something is so, where the words say that: from eight to ten, on at dawn and off at night. */
export function spanOf(text: string): { from: string; to: string } | null {
  const [from, to, more] = timesOf(text);
  if (from === undefined || to === undefined || more !== undefined || from === to) return null;
  const said =
    /\bfrom\b[^.;!?]*\b(?:to|until|till)\b|\bbetween\b|\bon\b[^.;!?]*\boff\b|\bopen\w*[^.;!?]*\b(?:clos|shut)\w*|\b(?:until|till)\b/.test(
      text,
    );
  return said ? { from, to } : null;
}

const UNIT_S: Readonly<Record<string, number>> = { second: 1, minute: 60, hour: 3600, day: 86_400 };
/** Counts of a time that are no counts of things. */
const ABOUT: ReadonlyMap<string, number> = new Map(
  Object.entries({
    a: 1,
    an: 1,
    half: 0.5,
    "half an": 0.5,
    few: 5,
    "a few": 5,
    other: 2,
  }),
);
const countIn = (word: string | undefined): number => (word === undefined ? 1 : (ABOUT.get(word) ?? numberOf(word)));
const MOST_S = 86_400;
const seconds = (n: number, unit: string): number | null =>
  n > 0 && Number.isFinite(n) ? Math.min(n * UNIT_S[unit]!, MOST_S) : null;

/** Every so many seconds, where the words say it: "every ten minutes", "each hour"; null: they don't. */
export function everyOf(text: string): number | null {
  const m = /\b(?:every|each) (?:(\d{1,4}|[a-z]+) )?(second|minute|hour|day)s?\b/.exec(text);
  if (!m) return null;
  return seconds(countIn(m[1]), m[2]!);
}

/** How long something lasts, seconds, where the words say it: "for ten minutes", "off after an hour"; null: they don't. */
export function lastingOf(text: string): number | null {
  const m =
    /\bfor (?:about |only |just )?(half an|a few|[a-z]+|\d{1,4}) (second|minute|hour)s?\b/.exec(text) ??
    /\b(half an|[a-z]+|\d{1,3}) (hour|minute)s? (?:at|in the|a day|per day|every day|each day)\b/.exec(text) ??
    /\boff\b[^.;!?]{0,24}\bafter (half an|a few|[a-z]+|\d{1,4}) (second|minute|hour)s?\b/.exec(text);
  return m ? seconds(countIn(m[1]), m[2]!) : null;
}
