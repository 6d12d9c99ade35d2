import { Union } from "../../circuit/netlist/union";

export interface Spot {
  end: string;
  x: number;
  y: number;
  /** So many wires go to it; more only when there is no other way. */
  takes: number;
}

const far = (a: Spot, b: Spot) => Math.hypot(a.x - b.x, a.y - b.y);

/** Wires that join all spots: the shortest first that no joint forbids (Kruskal with a limit of wires at each end). */
export function treeOf(spots: readonly Spot[]): [Spot, Spot][] {
  const pairs = spots
    .flatMap((a, i) => spots.slice(i + 1).map((b) => ({ a, b, d: far(a, b) })))
    .sort((p, q) => p.d - q.d);
  const left = new Map(spots.map((s) => [s, s.takes]));
  const u = new Union();
  const out: [Spot, Spot][] = [];
  const lay = (limit: (a: Spot, b: Spot, more: boolean) => boolean) => {
    for (const { a, b } of pairs) {
      if (u.find(a.end) === u.find(b.end)) continue;
      if (!limit(a, b, out.length < spots.length - 2)) continue;
      u.join(a.end, b.end);
      left.set(a, left.get(a)! - 1);
      left.set(b, left.get(b)! - 1);
      out.push([a, b]);
    }
  };
  const free = (s: Spot) => left.get(s)! > 0;
  // Two ends that take one wire each, joined with each other, would be shut off from the rest.
  const open = (a: Spot, b: Spot) => {
    const roots = [u.find(a.end), u.find(b.end)];
    return spots.reduce((n, s) => n + (roots.includes(u.find(s.end)) ? Math.max(0, left.get(s)!) : 0), 0) > 2;
  };
  lay((a, b, more) => free(a) && free(b) && (!more || open(a, b)));
  lay((a, b) => (free(a) || a.takes > 1) && (free(b) || b.takes > 1));
  lay(() => true);
  return out;
}
