import type { Circuit } from "../../circuit";
import { restOf } from "../../circuit/solve";
import { evaluate, formatOhm } from "../../quantity";
import { elementsAt } from "../graph";
import { label } from "../help";
import type { Found, Fix, Rule } from "../types";

/** The resistor that the other side lacks: the value that the part's data asks for, else 10 kΩ. */
function partnerFix(c: Circuit, ref: string, up: boolean): Fix[] {
  const inst = c.netlist.instance(ref)!;
  if (!c.project.parts.some((p) => p.ref === ref)) return [];
  const rule = inst.part.companions.find((x) => x.place === "pull");
  const ohm = evaluate(rule?.ohm ?? 10_000, inst.vars);
  return [
    {
      id: "partner",
      label: `Put ${formatOhm(ohm)} from the pin to ${up ? "ground" : "the supply"}`,
      edits: [{ type: "setCompanion", ref, key: up ? "pullDown" : "pullUp", value: { ohm } }],
    },
  ];
}

/** A net this close to a rail stands on it, volts. */
const ON_RAIL_V = 0.01;

export const adcOneSided: Rule = {
  rule: "adc.one-sided",
  says: "A converter measures volts: a resistance becomes a voltage only between two resistors, one to each side.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      const inst = c.netlist.instance(b.ref)!;
      const net = c.netlist.netOf(`${b.ref}.${b.pin}`);
      const own = elementsAt(c, net.id).some((e) => e.kind === "resistor" && e.ref === b.ref);
      if (b.need.kind !== "adc" || !own || inst.part.supplies.main || net.ends.some((e) => e.as === "driver"))
        return [];
      const rest = restOf(c.solved, net.id, { internal: true });
      const rail = rest?.way.end.kind === "rail" ? rest.way.end.net : undefined;
      // Between two resistors it stands off both rails; hung on one, it is that rail.
      if (!rest || !rail || Math.abs(rest.V - (rail.V?.typ ?? 0)) > ON_RAIL_V) return [];
      const up = rail.kind === "supply";
      return [
        {
          rule: "adc.one-sided",
          severity: "fault",
          at: [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`],
          message: `${label(c, b.ref)} only leads ${b.host}.${b.hostPin} to ${up ? "the supply" : "ground"}: whatever its resistance, it reads ${up ? "full" : "zero"}. It wants a resistor to ${up ? "ground" : "the supply"} beside it.`,
          evidence: { reads: up ? "full" : "zero" },
          fixes: () => partnerFix(c, b.ref, up),
        },
      ];
    }),
};
