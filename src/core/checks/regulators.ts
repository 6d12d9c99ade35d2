import type { Circuit } from "../circuit";
import { JUNCTION_MAX_C, JUNCTION_WARM_C, stageHeat, type Stage } from "../circuit/power";
import { airOf } from "../project";
import { evaluate, formatV } from "../quantity";
import { netById } from "./graph";
import { label, mA, round } from "./help";
import { ownSupplyFix, regulatorFix } from "./supply-fixes";
import type { Finding, Fix, Rule } from "./types";

/** A cooler way: the heaviest load below gets a supply of its own, or a lower one feeds the regulator. */
function coolerFixes(c: Circuit, s: Stage): Fix[] {
  const limit = c.power.limits.find((l) => l.id === `${s.ref}:${s.converter.from}>${s.converter.to}`);
  const heavy = limit?.loads.find((l) => !c.netlist.instance(l.ref)?.part.board && l.flow.typ > 0.05);
  return heavy ? [...ownSupplyFix(c, heavy.ref), ...regulatorFix(c, heavy.ref, s.to)] : [];
}

const heat: Rule = {
  rule: "power.regulator-heat",
  says: "A linear regulator turns every volt that it takes away into heat: (Vin − Vout) times the current.",
  check: (c) => {
    const air = airOf(c.project).max_C;
    return c.power.stages.flatMap((s): Finding[] => {
      const h = stageHeat(c.netlist, s, air);
      if (!h || s.converter.kind !== "linear" || h.junction_C <= JUNCTION_WARM_C) return [];
      const stop = h.junction_C > JUNCTION_MAX_C;
      const [vin, vout] = [netById(c, s.from)?.V, netById(c, s.to)?.V];
      return [
        {
          rule: "power.regulator-heat",
          severity: stop ? "stop" : "risk",
          at: [s.ref],
          message: `${label(c, s.ref)}, ${s.converter.says}: ${formatV(vin!.max)} down to ${formatV(vout!.typ)} at ${mA(s.out.typ)} makes ${h.typ_W.toFixed(2)} W and ${h.junction_C.toFixed(0)} °C inside, in air of ${air} °C${stop ? ": it shuts off or burns. Do not power this" : ": too hot to touch"}.`,
          evidence: {
            heat_W: round(h.typ_W, 2),
            junction_C: round(h.junction_C, 0),
            air_C: air,
            theta_C_per_W: h.theta_C_per_W,
            theta: h.assumed ? "assumed for its size" : "data sheet",
          },
          fixes: coolerFixes(c, s),
        },
      ];
    });
  },
};

/** Stages whose input may be too low for what the parts below want; worse when it is so at the usual voltage already. */
export function droppedOut(c: Circuit): { stage: Stage; usual: boolean; gives: number; wants: number; by: string }[] {
  return c.power.stages.flatMap((stage) => {
    const { converter: k } = stage;
    if (k.kind !== "linear" && !(k.kind === "switching" && k.dropout_V !== undefined)) return [];
    const [vin, net] = [netById(c, stage.from)?.V, netById(c, stage.to)];
    if (!vin || !net || k.dropout_V === undefined) return [];
    const users = net.nodes.flatMap((n) => {
      const inst = c.netlist.instance(n.ref);
      const s = n.supply ? inst?.part.supplies[n.supply] : undefined;
      return inst && s && !s.source && (s.mA || n.ref !== stage.ref)
        ? [{ ref: n.ref, min: evaluate(s.V.min, inst.vars) }]
        : [];
    });
    const worst = [...users].sort((a, b) => b.min - a.min)[0];
    if (!worst) return [];
    const left = (v: number) =>
      Math.min(v - k.dropout_V!, evaluate(k.V?.min ?? 0, c.netlist.instance(stage.ref)?.vars));
    if (left(vin.min) >= worst.min - 1e-9) return [];
    return [{ stage, usual: left(vin.typ) < worst.min, gives: left(vin.min), wants: worst.min, by: worst.ref }];
  });
}

const dropout: Rule = {
  rule: "power.dropout",
  says: "A regulator needs a little more at its input than it gives: its drop-out. Below that its output sinks with the input.",
  check: (c) =>
    droppedOut(c).map(({ stage, usual, gives, wants, by }): Finding => {
      const vin = netById(c, stage.from)!.V!;
      return {
        rule: "power.dropout",
        severity: usual ? "fault" : "risk",
        at: [stage.ref],
        message: `${label(c, stage.ref)}, ${stage.converter.says}: at ${formatV(vin.min)} in it gives ${formatV(Math.max(0, gives))} only; ${label(c, by)} wants ${formatV(wants)}.${usual ? "" : " So it is when the source is low."}`,
        evidence: {
          in_V: round(vin.min),
          dropout_V: stage.converter.dropout_V ?? 0,
          out_V: round(gives),
          wants_V: round(wants),
        },
        fixes: [],
      };
    }),
};

export const regulatorRules: Rule[] = [heat, dropout];
