import { format, isThisYear, isToday, isYesterday, type Locale } from "date-fns";
import { de, enGB, enUS, es, fr, it, nl, pl, pt } from "date-fns/locale";

const LOCALES: Record<string, Locale> = { de, "en-GB": enGB, en: enUS, es, fr, it, nl, pl, pt };

/** The reader's own way of writing dates, as far as it is known here. */
function locale(): Locale {
  const asked = typeof navigator === "undefined" ? [] : navigator.languages;
  for (const l of asked) {
    const known = LOCALES[l] ?? LOCALES[l.split("-")[0]!];
    if (known) return known;
  }
  return enGB;
}

/** When something was, as people say it: today and yesterday by the clock, else the day; never seconds. */
export function when(at: string | number | Date): string {
  const d = new Date(at);
  if (Number.isNaN(d.getTime())) return "";
  const o = { locale: locale() };
  if (isToday(d)) return `today, ${format(d, "p", o)}`;
  if (isYesterday(d)) return `yesterday, ${format(d, "p", o)}`;
  return format(d, isThisYear(d) ? "d MMM, p" : "d MMM yyyy, p", o);
}
