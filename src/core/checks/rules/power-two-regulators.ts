import type { Circuit } from "../../circuit";
import type { Net } from "../../circuit/netlist";
import { rootOf, sourcesOn } from "../../circuit/power";
import { evaluate, formatV } from "../../quantity";
import { label, round } from "../help";
import type { Found, Rule } from "../types";

/** Rails that differ by more than this are a short, and told as such, volts. */
const CLASH_V = 0.5;

interface Feeder {
  ref: string;
  V: number;
  regulator: boolean;
}

/** What puts a voltage on a net by itself: sources, and regulators whose input is fed by something else than this net. */
function feeders(c: Circuit, net: Net): Feeder[] {
  const out: Feeder[] = sourcesOn(c.netlist, net).map((s) => ({
    ref: s.ref,
    V: evaluate(s.source.V.typ, s.inst.vars),
    regulator: false,
  }));
  for (const { ref, supply } of net.nodes) {
    const inst = c.netlist.instance(ref);
    // A charger's output and the cell on it belong together.
    if (!inst || inst.part.tags.includes("charger")) continue;
    for (const k of inst.part.converters) {
      if (k.to !== supply || (k.kind !== "linear" && k.kind !== "switching") || !k.V) continue;
      const from = c.netlist.netOf(`${ref}:${k.from}`);
      if (from === net || !from.V) continue;
      // Fed backwards, through this very rail, it makes nothing.
      const root = rootOf(c.netlist, c.power, from.id);
      if (!root || c.power.stages.some((s) => s.to === from.id && s.from === net.id)) continue;
      out.push({ ref, V: evaluate(k.V.typ, inst.vars), regulator: true });
    }
  }
  return out;
}

/** A rail that two regulators, or a regulator and a source, both hold at nearly the same voltage. */
export const twoRegulators: Rule = {
  rule: "power.two-sources",
  says: "Two sources on one rail push against each other: a USB port gets current back, a cell is charged without a charger.",
  check: (c) =>
    c.netlist.nets.flatMap((net): Found[] => {
      if (net.kind !== "supply") return [];
      const list = feeders(c, net);
      const [lo, hi] = [Math.min(...list.map((x) => x.V)), Math.max(...list.map((x) => x.V))];
      if (list.length < 2 || !list.some((x) => x.regulator) || hi - lo > CLASH_V) return [];
      const names = [...new Set(list.map((x) => x.ref))];
      const cell = sourcesOn(c.netlist, net).some((s) => s.source.capacity_mAh !== undefined);
      const what =
        names.length > 1 ? names.map((r) => label(c, r)).join(" and ") : `Two outputs of ${label(c, names[0]!)}`;
      const words = cell
        ? "the cell is charged without any control: it leaks, swells or burns. Do not power this"
        : "the one that is a little higher carries all, and pushes into the other, which few regulators stand. Feed the rail from one of them only, or put a diode behind each";
      return [
        {
          rule: "power.two-sources",
          severity: cell ? "stop" : "risk",
          at: [...names, net.name],
          message: `${what} both feed ${net.name} (${formatV(lo)} and ${formatV(hi)}): ${words}.`,
          evidence: { first_V: round(lo), second_V: round(hi) },
          fixes: c.project.links
            .filter((l) => {
              const refs = [l.from, l.to].map((e) => e.split(".")[0]!);
              const ends = net.ends.map((e) => `${e.ref}.${e.pin}`);
              return ends.includes(l.from) && ends.includes(l.to) && refs.every((r) => names.includes(r));
            })
            .slice(0, 1)
            .map((l) => ({
              id: `remove-wire-${l.from}-${l.to}`,
              label: `Take out the wire from ${l.from} to ${l.to}`,
              edits: [{ type: "removeLink" as const, from: l.from, to: l.to }],
            })),
        },
      ];
    }),
};
