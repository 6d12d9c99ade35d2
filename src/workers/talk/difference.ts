/** How one plain value becomes another; null where nothing changed. Of a list the first `keep` items stay, `l` follows them. */
export type Change =
  null | { v: unknown } | { o: [key: string, change: Change][]; gone?: string[] } | { keep: number; l: Item[] };
/** An item of a list: one of the old list as it was, an old one changed, or a new one. */
type Item = number | [from: number, change: Change] | { v: unknown };

type Plain = Record<string, unknown>;
const isPlain = (x: unknown): x is Plain => typeof x === "object" && x !== null && !Array.isArray(x);

/** What tells an item of a list from the others, wherever it stands. */
const NAMES = ["id", "ref", "end", "key", "name", "rule"] as const;
const nameOf = (x: unknown): string | undefined => {
  if (!isPlain(x)) return undefined;
  for (const n of NAMES) if (typeof x[n] === "string") return `${n} ${x[n]}`;
  return undefined;
};

function objects(before: Plain, after: Plain): Change {
  const o: [string, Change][] = [];
  for (const k of Object.keys(after)) {
    const change = Object.hasOwn(before, k) ? difference(before[k], after[k]) : { v: after[k] };
    if (change) o.push([k, change]);
  }
  const gone = Object.keys(before).filter((k) => !Object.hasOwn(after, k));
  if (gone.length) return { o, gone };
  return o.length ? { o } : null;
}

/** Old places by name; names that come twice stand for nothing. */
function placesOf(list: readonly unknown[]): Map<string, number> {
  const at = new Map<string, number>();
  const twice = new Set<string>();
  list.forEach((x, i) => {
    const n = nameOf(x);
    if (n === undefined) return;
    if (at.has(n)) twice.add(n);
    at.set(n, i);
  });
  for (const n of twice) at.delete(n);
  return at;
}

function lists(before: readonly unknown[], after: readonly unknown[]): Change {
  let keep = 0;
  while (keep < before.length && keep < after.length && difference(before[keep], after[keep]) === null) keep++;
  if (keep === before.length && keep === after.length) return null;
  const at = placesOf(before);
  const l = after.slice(keep).map((x, k): Item => {
    const i = keep + k;
    const name = nameOf(x);
    const from = (name !== undefined ? at.get(name) : undefined) ?? i;
    if (from >= before.length) return { v: x };
    const change = difference(before[from], x);
    return change ? ("v" in change ? { v: x } : [from, change]) : from;
  });
  return { keep, l };
}

/** The change from one plain value (as JSON knows them) to another; items of lists are followed by what names them. */
export function difference(before: unknown, after: unknown): Change {
  if (Object.is(before, after)) return null;
  if (Array.isArray(before) && Array.isArray(after)) return lists(before, after);
  if (isPlain(before) && isPlain(after)) return objects(before, after);
  return { v: after };
}

/** The value after a change. What did not change is the very same object, so that views know what need not be drawn. */
export function apply(before: unknown, change: Change): unknown {
  if (change === null) return before;
  if ("v" in change) return change.v;
  if ("l" in change) {
    const old = before as readonly unknown[];
    return [
      ...old.slice(0, change.keep),
      ...change.l.map((x) => (typeof x === "number" ? old[x] : Array.isArray(x) ? apply(old[x[0]], x[1]) : x.v)),
    ];
  }
  const next: Plain = { ...(before as Plain) };
  for (const k of change.gone ?? []) delete next[k];
  for (const [k, c] of change.o) {
    const value = apply(Object.hasOwn(next, k) ? next[k] : undefined, c);
    // A key that a hostile document may carry is a key like any other.
    if (k === "__proto__")
      Object.defineProperty(next, k, { value, enumerable: true, configurable: true, writable: true });
    else next[k] = value;
  }
  return next;
}
