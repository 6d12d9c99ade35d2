import type { Circuit } from "../../circuit";
import type { Net, NetElement } from "../../circuit/netlist";
import { elementsAt, netById, otherEnd } from "../graph";
import { label } from "../help";
import type { Found, Rule } from "../types";
import { swapped } from "../power";

/** What a ground's current runs through on its way to another ground: switches and transistors; null when it never gets there. */
function groundSwitch(c: Circuit, from: Net, to: Net): NetElement[] | null {
  const seen = new Map<string, NetElement[]>([[from.id, []]]);
  for (const [here, way] of seen) {
    if (here === to.id) return way;
    for (const el of elementsAt(c, here)) {
      if (el.kind !== "contact" && el.kind !== "bjt" && el.kind !== "fet") continue;
      const far = otherEnd(el, here);
      if (![el.a, el.b].includes(here) || seen.has(far) || netById(c, far)?.kind === "supply") continue;
      seen.set(far, [...way, el]);
    }
  }
  return null;
}

export const powerGroundNotCommon: Rule = {
  rule: "power.ground-not-common",
  says: "Two parts that exchange signals must share ground, or a high has no meaning.",
  check: (c) => {
    const seen = new Set<string>();
    return c.netlist.bindings.flatMap((b): Found[] => {
      const inst = c.netlist.instance(b.ref)!;
      const host = c.netlist.instance(b.host)!;
      const ground = inst.part.pins.find((p) => p.role === "ground");
      const home = host.part.pins.find((p) => p.role === "ground");
      if (!ground || !home || seen.has(b.ref) || b.isolated) return [];
      const mine = c.netlist.netOf(`${b.ref}.${ground.label}`);
      const theirs = c.netlist.netOf(`${b.host}.${home.label}`);
      if (mine === theirs) return [];
      const alone = new Set([...mine.ends.map((e) => e.ref), ...mine.nodes.map((n) => n.ref)]).size < 2;
      if (alone || swapped(c, mine) || swapped(c, theirs)) return [];
      seen.add(b.ref);
      const through = groundSwitch(c, mine, theirs);
      if (through) {
        const by = [...new Set(through.map((e) => label(c, e.ref)))].join(" and ");
        return [
          {
            rule: "power.ground-not-common",
            severity: "risk",
            at: [`${b.ref}.${ground.label}`, ...new Set(through.map((e) => e.ref))],
            message: `${label(c, b.ref)}'s ground goes through ${by}. While that is open, the part is not off: its current finds a way through ${b.pin} and its other signals, and its levels mean nothing. Switch its supply wire instead, and leave the grounds joined.`,
            evidence: { signal: b.pin, through: by },
            fixes: [],
          },
        ];
      }
      return [
        {
          rule: "power.ground-not-common",
          severity: "fault",
          at: [`${b.ref}.${ground.label}`, `${b.host}.${home.label}`],
          message: `${label(c, b.ref)} and ${label(c, b.host)} exchange ${b.pin} but their grounds are not joined.`,
          evidence: { signal: b.pin },
          fixes: [
            {
              id: "join-grounds",
              label: `Join ${b.ref}.${ground.label} and ${b.host}.${home.label}`,
              edits: [{ type: "addLink", link: { from: `${b.ref}.${ground.label}`, to: `${b.host}.${home.label}` } }],
            },
          ],
        },
      ];
    });
  },
};
