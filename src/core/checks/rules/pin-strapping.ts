import type { Circuit } from "../../circuit";
import type { Binding, NetElement } from "../../circuit/netlist";
import { restOf } from "../../circuit/solve";
import { moveFix } from "../help";
import type { Found, Rule, Severity } from "../types";
import { hostPin, place, needOf } from "../pins";

/** The chip's own pull at a strapping pin, where its data does not say another, ohms. */
const STRAP_OHM = 45_000;

/** The pull that a chip has at a pin whose level at reset it wants, as an element. */
function strapPull(c: Circuit, b: Binding, want: "high" | "low"): NetElement | undefined {
  const level = c.netlist.level(b.host, b.hostPin);
  const host = c.netlist.instance(b.host)!.part;
  const ground = host.pins.find((p) => p.role === "ground");
  const to = want === "high" ? level && `${b.host}:${level.supply}` : ground && `${b.host}.${ground.label}`;
  const net = c.netlist.netOf(`${b.host}.${b.hostPin}`);
  if (!to) return undefined;
  const ohm = Number(level?.pullUp_ohm?.max ?? STRAP_OHM);
  return { ref: b.host, kind: "resistor", a: net.id, b: c.netlist.netOf(to).id, ohm, tolerance: 0, internal: true };
}

/** What a pin sees while the chip starts: a pull one way, a driver that nobody can foresee, or nothing. */
function seenAtReset(
  c: Circuit,
  b: Binding,
  want: "high" | "low" | undefined,
): "high" | "low" | "between" | "driven" | "open" {
  const net = c.netlist.netOf(`${b.host}.${b.hostPin}`);
  if (net.ends.some((e) => e.ref !== b.host && e.as === "driver" && !e.def.offers)) return "driven";
  const alone = restOf(c.solved, net.id);
  const pull = want && strapPull(c, b, want);
  // Against the chip's own pull: a light to ground drags a weak high down though it holds nothing by itself.
  const rest = pull ? restOf(c.solved, net.id, { pull }) : alone;
  if (!rest || (!alone && rest.side === want)) return "open";
  return rest.side;
}

export const pinStrapping: Rule = {
  rule: "pin.strapping",
  says: "Some pins decide at reset how the chip starts: what hangs on them must leave them at the right level.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      const h = hostPin(c, b)?.hazards?.find((x) => x.kind === "strapping");
      if (!h) return [];
      const sees = seenAtReset(c, b, h.want);
      const wrong = h.want !== undefined && ["high", "low", "between"].includes(sees) && sees !== h.want;
      const severity: Severity = wrong ? "fault" : sees === "driven" ? "risk" : "note";
      const SAYS = {
        high: "is pulled high there",
        low: "is pulled low there",
        between: "is held between high and low there",
        driven: "is driven by the part",
        open: "is left open by the part",
      };
      return [
        {
          rule: "pin.strapping",
          severity,
          at: place(b),
          message: `${b.ref}.${b.pin} is on ${b.host}.${b.hostPin}, which ${h.says}; it ${SAYS[sees]}${wrong ? ", so the chip does not start as it should" : sees === "driven" ? ", at a level that can't be known while starting" : ""}.`,
          evidence: { pin: b.hostPin, sees, ...(h.want && { wants: h.want }) },
          fixes: () => (severity === "note" ? [] : moveFix(c, b.ref, b.pin, b.host, needOf(c, b))),
        },
      ];
    }),
};
