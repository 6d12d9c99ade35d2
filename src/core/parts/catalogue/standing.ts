import type { Standing } from "./certainty";
import type { Part } from "./schema";

/** The value at a path like `levels/main/VIH`; undefined where there is none. */
export function valueAt(part: Part, path: string): unknown {
  let at: unknown = part;
  for (const key of path.split("/")) {
    if (typeof at !== "object" || at === null || !Object.hasOwn(at, key)) return undefined;
    at = (at as Record<string, unknown>)[key];
  }
  return at;
}

/**
 * How sure one value of a part is: what is said of it, or of the section that it stands in (`levels/main`), by itself; else
 * what is said of the whole part. `source`: where that value is from, where it is told.
 */
export function standingOf(part: Part, path: string): { certainty: Standing; source: string | null } {
  const steps = path.split("/");
  for (let n = steps.length; n > 0; n--) {
    const said = part.values?.[steps.slice(0, n).join("/")];
    if (said) {
      const { source } = said;
      const from = source && [source.title, source.revision, source.where].filter(Boolean).join(", ");
      return { certainty: said.certainty, source: from ?? null };
    }
  }
  return { certainty: part.certainty, source: null };
}

/** Sections whose values decide, and which of their keys they are. */
const LEVEL_KEYS = ["VIH", "VIL", "VOH", "VOL", "points", "absMax", "absMax_off", "pin_mA"] as const;
const SUPPLY_KEYS = ["V", "absMax_V", "mA", "source"] as const;

/** Every value of a part by which something is judged, as paths. */
export const decisive = (part: Part): string[] => [
  ...Object.entries(part.levels).flatMap(([k, l]) =>
    LEVEL_KEYS.filter((x) => l[x] !== undefined).map((x) => `levels/${k}/${x}`),
  ),
  ...Object.entries(part.supplies).flatMap(([k, s]) =>
    SUPPLY_KEYS.filter((x) => s[x] !== undefined).map((x) => `supplies/${k}/${x}`),
  ),
  ...part.converters.map((_, i) => `converters/${i}`),
  ...part.elements.map((_, i) => `elements/${i}`),
  ...part.groups.flatMap((g, i) => (g.max_Hz === undefined ? [] : [`groups/${i}/max_Hz`])),
];
