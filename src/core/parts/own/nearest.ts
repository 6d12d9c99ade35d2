import type { Part } from "../catalogue";

/** A shipped part that an own one is much like, and where the two say other things. */
export interface Beside {
  id: string;
  name: string;
  differs: { path: string; own: string; shipped: string }[];
}

/** So much of their pins two parts have in common, to be called alike: a share of all of them. */
const ALIKE = 0.7;
/** What decides whether something is destroyed or works. */
const SECTIONS = ["supplies", "levels", "converters", "elements", "groups", "companions", "options", "board"] as const;
const MOST = 40;

const labels = (p: Part) => new Set(p.pins.map((x) => x.label.toUpperCase()));
function alike(a: Part, b: Part): number {
  const [x, y] = [labels(a), labels(b)];
  const both = [...x].filter((l) => y.has(l)).length;
  return both / (x.size + y.size - both);
}

const said = (v: unknown): string =>
  v === undefined ? "not said" : typeof v === "object" ? (JSON.stringify(v) ?? "").slice(0, 80) : String(v);

/** Leaves of two values that are not the same, by path. */
function differing(own: unknown, shipped: unknown, path: string): Beside["differs"] {
  const nested = (v: unknown): v is Record<string, unknown> => typeof v === "object" && v !== null;
  if (nested(own) && nested(shipped))
    return [...new Set([...Object.keys(own), ...Object.keys(shipped)])].flatMap((k) =>
      differing(
        Object.hasOwn(own, k) ? own[k] : undefined,
        Object.hasOwn(shipped, k) ? shipped[k] : undefined,
        path ? `${path}/${k}` : k,
      ),
    );
  return JSON.stringify(own) === JSON.stringify(shipped) ? [] : [{ path, own: said(own), shipped: said(shipped) }];
}

/** The shipped part that an own one is most like, by its name or its pins, with what differs in numbers; null: it is like none. */
export function nearest(own: Part, shipped: readonly Part[]): Beside | null {
  const kind = own.id.split("/")[0]!;
  const all = shipped
    .filter((p) => p.id.startsWith(`${kind}/`) && p.id !== own.id && alike(own, p) >= ALIKE)
    .map((p) => ({ p, differs: SECTIONS.flatMap((k) => differing(own[k], p[k], k)), named: p.name === own.name }));
  // Many parts have the same four pins: the one with the same name, else the one that says the least other things.
  const [best] = all.sort(
    (a, b) =>
      Number(b.named) - Number(a.named) ||
      a.differs.length - b.differs.length ||
      alike(own, b.p) - alike(own, a.p) ||
      (a.p.id < b.p.id ? -1 : 1),
  );
  return best ? { id: best.p.id, name: best.p.name, differs: best.differs.slice(0, MOST) } : null;
}
