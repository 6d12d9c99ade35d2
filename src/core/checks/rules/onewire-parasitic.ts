import { oneWires } from "../../circuit/buses";
import { evaluate, formatOhm, formatV } from "../../quantity";
import { label, mA, round } from "../help";
import { logicSupplyFix } from "../supply-fixes";
import type { Found, Rule } from "../types";

/**
 * A one-wire sensor with its supply pin at ground lives on what the data wire's pull-up brings. While it measures that
 * is not enough: DS18B20 data sheet, "Powering the DS18B20" (a strong pull-up during the conversion, up to 1.5 mA).
 */
export const onewireParasitic: Rule = {
  rule: "onewire.parasitic",
  says: "A one-wire sensor that is fed over its data wire starves while it measures: give its supply pin a wire of its own.",
  check: (c) =>
    oneWires(c).flatMap((line) =>
      line.parts.flatMap(({ ref }): Found[] => {
        const inst = c.netlist.instance(ref)!;
        const pin = inst.part.pins.find((p) => p.role === "supply-in");
        const supply = pin && inst.part.supplies[pin.supply!];
        if (!pin || !supply?.mA || c.netlist.netOf(`${ref}.${pin.label}`).kind !== "ground") return [];
        const A = evaluate(supply.mA.peak, inst.vars) / 1000;
        const least = evaluate(supply.V.min, inst.vars);
        const top = c.netlist.netOf(`${line.host}:${c.netlist.instance(line.host)!.part.board?.logicSupply ?? ""}`).V;
        const left = top && Number.isFinite(line.ohm) ? Math.max(0, top.min - A * line.ohm) : 0;
        return [
          {
            rule: "onewire.parasitic",
            severity: "fault",
            at: [`${ref}.${pin.label}`],
            message: `${label(c, ref)} has ${pin.label} at ground and lives on its data wire. Measuring takes ${mA(A)}: through ${Number.isFinite(line.ohm) ? `the pull-up of ${formatOhm(line.ohm)}` : "no pull-up"} ${formatV(left)} is left, and it wants ${formatV(least)}. Wire ${pin.label} to the supply.`,
            evidence: { needs_mA: round(A * 1000), left_V: round(left), wants_V: least },
            fixes: () => logicSupplyFix(c, ref),
          },
        ];
      }),
    ),
};
