import { UNSTEADY, type Answer, type Observation } from "./questions";

/** A meter, a thin wire and a hasty eye: so likely is a word that is not what the build shows. */
const SLIP = 0.02;
/** What can be said of an observation that the model can't foresee. */
const UNKNOWN = 0.3;
/** A meter and the spread of parts, as a share and in volts. */
const SHARE = 0.05;
const LEAST_V = 0.1;
/** A reading of nothing steady is most often near zero, this far, volts. */
const NEAR_ZERO_V = 0.4;
/** Resistors within this share are taken for each other. */
const OHM_SHARE = 0.15;

/** Words that people and programs mix up, and how readily. */
const CLOSE: Record<string, number> = {
  "dim works": 0.15,
  "dim no": 0.2,
  "always works": 0.08,
  "no silent": 0.1,
};
const close = (a: string, b: string) => CLOSE[[a, b].sort().join(" ")] ?? SLIP;

const bell = (off: number) => 0.95 * Math.exp((-off * off) / 2) + SLIP;

/** How likely what was seen is, when the build shows this. */
export function likelihood(o: Observation, shown: Answer): number {
  if (shown === null) return UNKNOWN;
  const { q, seen } = o;
  if (q.kind === "volt") {
    if (typeof seen !== "number") return seen === shown ? 0.9 : 0.1;
    if (shown === UNSTEADY) return Math.abs(seen) < NEAR_ZERO_V ? 0.6 : 0.12;
    if (typeof shown !== "number") return SLIP;
    return bell(Math.abs(seen - shown) / Math.max(LEAST_V, SHARE * Math.abs(shown)));
  }
  if (q.kind === "ohm") {
    if (typeof seen !== "number" || typeof shown !== "number") return UNKNOWN;
    if (!Number.isFinite(seen) || !Number.isFinite(shown)) return seen === shown ? 0.95 : SLIP;
    const [a, b] = [Math.max(seen, 1), Math.max(shown, 1)];
    return bell(Math.abs(Math.log(a / b)) / OHM_SHARE);
  }
  return seen === shown ? 0.97 : close(String(seen), String(shown));
}

/** Whether what was seen is what the build shows, near enough. */
export const agrees = (o: Observation, shown: Answer): boolean => shown === null || likelihood(o, shown) >= 0.25;

/** An answer as a word, so that answers can be sorted into kinds: those that a person would tell apart. */
export function labelOf(shown: Answer): string {
  if (shown === null) return "?";
  if (typeof shown === "string") return shown;
  if (!Number.isFinite(shown)) return "open";
  return `${shown < 0 ? "-" : ""}${Math.round(Math.abs(shown) < 12 ? Math.abs(shown) * 2 : 24 + 4 * Math.log10(Math.abs(shown) / 12))}`;
}
