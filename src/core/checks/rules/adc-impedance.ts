import { restOf } from "../../circuit/solve";
import { formatOhm } from "../../quantity";
import { elementsAt } from "../graph";
import { owner, round } from "../help";
import type { Found, Rule } from "../types";

/** A capacitor of this size at the pin feeds the sampling switch instead of the source. */
const FEEDS_F = 10e-9;

const ADVISED_OHM = 10_000;

export const adcImpedance: Rule = {
  rule: "adc.impedance",
  says: "A converter takes a sip of charge with every sample: a source of high resistance can't refill it in time.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      const board = c.netlist.instance(b.host)?.part.board;
      if (b.need.kind !== "adc" || !board) return [];
      const net = c.netlist.netOf(`${b.host}.${b.hostPin}`);
      if (net.ends.some((e) => e.as === "driver")) return [];
      const held = elementsAt(c, net.id).some((e) => e.kind === "capacitor" && (e.F ?? 0) >= FEEDS_F);
      const most = board.analog?.source_ohm ?? ADVISED_OHM;
      // What the converter looks back into, worst at a wiper's middle.
      const ohm = restOf(c.solved, net.id)?.ohm ?? 0;
      if (held || ohm <= most * 1.001) return [];
      return [
        {
          rule: "adc.impedance",
          severity: "risk",
          at: [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`],
          message: `${b.host}.${b.hostPin} looks into ${formatOhm(ohm)}; its converter wants ${formatOhm(most)} or less. Readings lag and hang on the channel read before.`,
          evidence: { source_ohm: round(ohm, 0), advised_ohm: most },
          fixes: c.project.parts.some((p) => p.ref === owner(c, b.ref))
            ? [
                {
                  id: "capacitor",
                  label: "Put 100 nF from the pin to ground",
                  edits: [
                    { type: "setCompanion", ref: owner(c, b.ref), key: "filter", value: { F: 1e-7, pin: b.pin } },
                  ],
                },
              ]
            : [],
        },
      ];
    }),
};
