/** For the rules: regulators that have too little to work with. */
import type { Circuit } from "../circuit";
import type { Stage } from "../circuit/power";
import { evaluate } from "../quantity";
import { netById } from "./graph";

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
