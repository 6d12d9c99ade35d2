import type { Circuit } from "../../circuit";
import type { Instance, Net } from "../../circuit/netlist";
import { restOf } from "../../circuit/solve";
import { elementsAt } from "../graph";
import { label, round } from "../help";
import type { Found, Rule } from "../types";
import { railWords, unwireFixes } from "./words";

interface Gate {
  pin: string;
  open: "low" | "high";
  opens?: readonly string[];
  says: string;
  mild?: boolean;
  /** Only where all of what it opens is wired: a path from one pin to another. */
  path?: true;
}

/** The gates that a part states, and those of its channels, which open when low. */
const gatesOf = ({ part }: Instance): Gate[] => [
  ...part.gates,
  ...part.channels.flatMap((x): Gate[] =>
    x.enable
      ? [{ pin: x.enable, open: "low", opens: [x.in, x.out], path: true, says: `passes ${x.in} on to ${x.out}` }]
      : [],
  ),
];

interface Steady {
  side: "low" | "high";
  V: number;
  by: string;
}

/** The level that a net keeps for ever: joined to a rail, or pulled there with nobody to change it. */
function steadyOf(c: Circuit, net: Net): Steady | null {
  const rail = net.kind === "ground" || net.kind === "supply";
  if (net.ends.some((e) => e.as === "driver" || e.as === "both")) return rail ? steadyRail(c, net) : null;
  if (rail) return steadyRail(c, net);
  // A hand on a contact, a light or a transistor may change it.
  if (elementsAt(c, net.id).some((e) => e.kind !== "resistor" && e.kind !== "capacitor")) return null;
  const rest = restOf(c.solved, net.id, { internal: true });
  if (!rest || rest.side === "between" || rest.way.end.kind !== "rail") return null;
  return { side: rest.side, V: rest.V, by: `pulled to ${railWords(c, rest.way.end.net)}, with nothing to change it` };
}
const steadyRail = (c: Circuit, net: Net): Steady | null =>
  net.kind === "supply" && !net.V
    ? null
    : {
        side: net.kind === "ground" ? "low" : "high",
        V: net.V?.typ ?? 0,
        by: `wired to ${railWords(c, net)}`,
      };

/** Whether somebody wants what a gate opens: one of its pins has a wire, or any signal of the part where it opens all. */
function inUse(c: Circuit, inst: Instance, gate: Gate): boolean {
  const wired = (pin: string) => {
    const net = c.netlist.netOf(`${inst.ref}.${pin}`);
    return net.kind !== "ground" && net.kind !== "supply" && net.ends.length > 1;
  };
  if (gate.opens) return gate.path ? gate.opens.every(wired) : gate.opens.some(wired);
  return inst.part.pins.some((p) => p.need && p.label !== gate.pin && wired(p.label));
}

export const gateShut: Rule = {
  rule: "net.gate-shut",
  says: "An enable, sleep, reset or direction input that always stands at its idle level keeps the part, or a path of it, shut for ever.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Found[] => {
      const seen = new Set<string>();
      return gatesOf(inst).flatMap((gate): Found[] => {
        const steady = steadyOf(c, c.netlist.netOf(`${inst.ref}.${gate.pin}`));
        if (!steady || steady.side === gate.open || seen.has(gate.pin) || !inUse(c, inst, gate)) return [];
        seen.add(gate.pin);
        const end = `${inst.ref}.${gate.pin}`;
        return [
          {
            rule: "net.gate-shut",
            severity: gate.mild ? "risk" : "fault",
            at: [end, ...(gate.opens ?? []).map((x) => `${inst.ref}.${x}`)],
            message: `${end} is always ${steady.side} (${steady.by}), but ${label(c, inst.ref)} ${gate.says} only while it is ${gate.open}.`,
            evidence: { pin: end, stands_V: round(steady.V, 2), works_while: gate.open },
            fixes: () => unwireFixes(c, end, 1),
          },
        ];
      });
    }),
};
