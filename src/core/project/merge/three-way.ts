/** Three states of one thing put together: as it was, as it is here, as it is there. Data alone; nothing here knows projects. */

/** Two that changed the same thing differently: one of them has to be chosen. */
export interface Clash {
  /** Where, the same in every try: choices are made by it. */
  key: string;
  /** What it is about, for a person. */
  what: string;
  mine: string;
  theirs: string;
}
export type Side = "mine" | "theirs";
export type Picks = Readonly<Record<string, Side>>;

/** Text that is the same for the same data, whatever order its keys have. */
export function canon(v: unknown): string {
  if (v === undefined) return "nothing";
  if (Array.isArray(v)) return `[${v.map(canon).join(",")}]`;
  if (typeof v === "object" && v !== null)
    return `{${Object.keys(v)
      .filter((k) => (v as Record<string, unknown>)[k] !== undefined)
      .sort()
      .map((k) => `${JSON.stringify(k)}:${canon((v as Record<string, unknown>)[k])}`)
      .join(",")}}`;
  return JSON.stringify(v);
}
export const same = (a: unknown, b: unknown): boolean => canon(a) === canon(b);

const MOST_SAID = 80;
/** A value as a person can read it. */
export function said(v: unknown): string {
  if (v === undefined) return "not there";
  const text = typeof v === "string" ? v || "nothing" : typeof v === "boolean" ? (v ? "yes" : "no") : JSON.stringify(v);
  return text.length > MOST_SAID ? `${text.slice(0, MOST_SAID)}…` : text;
}

export type Three<T> = readonly [base: T, mine: T, theirs: T];

/** One merge: the choices made, and the clashes found on the way. Until it is chosen, theirs stands. */
export class Merging {
  readonly clashes: Clash[] = [];
  constructor(private readonly picks: Picks) {}

  /** As a whole: the side that changed it, or the one that was chosen. */
  leaf<T>(key: string, what: string, [b, m, t]: Three<T>, say: (v: T) => string = said): T {
    if (same(m, t) || same(b, t)) return m;
    if (same(b, m)) return t;
    this.clashes.push({ key, what, mine: say(m), theirs: say(t) });
    return this.picks[key] === "mine" ? m : t;
  }

  /** Key by key, each by itself; a key that is taken out on one side and left alone on the other is out. */
  record<T>(
    [b, m, t]: Three<Readonly<Record<string, T>> | undefined>,
    each: (key: string, three: Three<T | undefined>) => T | undefined,
  ): Record<string, T> {
    const keys = [...new Set([...Object.keys(t ?? {}), ...Object.keys(m ?? {})])];
    const at = (r: Readonly<Record<string, T>> | undefined, k: string) => (r && Object.hasOwn(r, k) ? r[k] : undefined);
    const entries = keys.flatMap((k): [string, T][] => {
      const v = each(k, [at(b, k), at(m, k), at(t, k)]);
      return v === undefined ? [] : [[k, v]];
    });
    // A key that is called like something of every object is a key like any other.
    return Object.fromEntries(entries);
  }

  /** Things with a name of their own, in their order there; what is new here comes behind. */
  keyed<T>(
    [b, m, t]: Three<readonly T[]>,
    idOf: (v: T) => string,
    each: (id: string, three: Three<T | undefined>) => T | undefined,
  ): T[] {
    const [bs, ms, ts] = [b, m, t].map((list) => new Map(list.map((v) => [idOf(v), v] as const))) as [
      Map<string, T>,
      Map<string, T>,
      Map<string, T>,
    ];
    const ids = [...new Set([...ts.keys(), ...ms.keys()])];
    return ids.flatMap((id) => each(id, [bs.get(id), ms.get(id), ts.get(id)]) ?? []);
  }

  /** Things without a name: what either side took out is out, what either put in is in. */
  bag<T>([b, m, t]: Three<readonly T[]>): T[] {
    const keep = (v: T) => {
      const k = canon(v);
      const there = (list: readonly T[]) => list.some((x) => canon(x) === k);
      return there(b) ? there(m) && there(t) : true;
    };
    const out = new Map<string, T>();
    for (const v of [...t, ...m]) if (keep(v)) out.set(canon(v), v);
    return [...out.values()];
  }
}
