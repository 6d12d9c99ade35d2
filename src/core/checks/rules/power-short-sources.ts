import type { Circuit } from "../../circuit";
import { formatV } from "../../quantity";
import { splitEnd } from "../../project";
import { label, round } from "../help";
import type { Found, Fix, Rule } from "../types";
import { clashingNets, meetings, clash, typ } from "../sources";

/** Rails of different voltage on one net, or a regulator's output joined to its input. */
export const powerShortSources: Rule = {
  rule: "power.short",
  says: "A supply must never be joined to ground, nor to a supply of another voltage.",
  check: (c) => {
    const found = (at: string[], what: string, V: [number, number]): Found => ({
      rule: "power.short",
      severity: "stop",
      at,
      message: `${what} are joined: ${formatV(V[0])} and ${formatV(V[1])} on one rail. Do not power this.`,
      evidence: { first_V: round(V[0]), second_V: round(V[1]) },
      fixes: () => joinFix(c, at),
    });
    const rails = clashingNets(c);
    const names = (refs: string[]) =>
      refs.length > 1 ? refs.map((r) => label(c, r)).join(" and ") : `two rails of ${label(c, refs[0]!)}`;
    return [
      ...rails.map((x) => found(x.refs, names(x.refs), [x.lo, x.hi])),
      ...meetings(c)
        .filter((m) => clash(m) && !rails.some((r) => [m.a.ref, m.b.ref].every((x) => r.refs.includes(x))))
        .map(({ a, b }) => found([a.ref, b.ref], `${label(c, a.ref)} and ${label(c, b.ref)}`, [typ(a), typ(b)])),
    ];
  },
};

/** Wires between two supply pins of the named parts: one of them is too many. */
function joinFix(c: Circuit, refs: string[]): Fix[] {
  return c.project.links
    .filter((l) => {
      const ends = [l.from, l.to].map((e) => {
        const { ref, pin } = splitEnd(e);
        const def = c.netlist.instance(ref)?.part.pins.find((p) => p.label === pin || p.aliases?.includes(pin));
        return refs.includes(ref) && (def?.role === "supply-out" || def?.role === "supply-io") ? ref : null;
      });
      return ends.every((r) => r !== null);
    })
    .map((l) => ({
      id: `remove-${l.from}-${l.to}`,
      label: `Take out the wire from ${l.from} to ${l.to}`,
      edits: [{ type: "removeLink" as const, from: l.from, to: l.to }],
    }));
}
