import { format, isThisYear, isToday, isYesterday, type Locale } from "date-fns";
import { enGB } from "date-fns/locale/en-GB";

const LOCALES: Record<string, () => Promise<Locale>> = {
  de: () => import("date-fns/locale/de").then((m) => m.de),
  en: () => import("date-fns/locale/en-US").then((m) => m.enUS),
  "en-GB": () => Promise.resolve(enGB),
  es: () => import("date-fns/locale/es").then((m) => m.es),
  fr: () => import("date-fns/locale/fr").then((m) => m.fr),
  it: () => import("date-fns/locale/it").then((m) => m.it),
  nl: () => import("date-fns/locale/nl").then((m) => m.nl),
  pl: () => import("date-fns/locale/pl").then((m) => m.pl),
  pt: () => import("date-fns/locale/pt").then((m) => m.pt),
};

let locale: Locale = enGB;
/** The reader's own way of writing dates, as far as it is known here: one is fetched, long before the first date is there. */
const own = (typeof navigator === "undefined" ? [] : navigator.languages)
  .map((l) => LOCALES[l] ?? LOCALES[l.split("-")[0]!])
  .find(Boolean);
void own?.().then(
  (l) => (locale = l),
  () => undefined,
);

/** When something was, as people say it: today and yesterday by the clock, else the day; never seconds. */
export function when(at: string | number | Date): string {
  const d = new Date(at);
  if (Number.isNaN(d.getTime())) return "";
  const o = { locale };
  if (isToday(d)) return `today, ${format(d, "p", o)}`;
  if (isYesterday(d)) return `yesterday, ${format(d, "p", o)}`;
  return format(d, isThisYear(d) ? "d MMM, p" : "d MMM yyyy, p", o);
}
