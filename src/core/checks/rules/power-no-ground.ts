import { label } from "../help";
import type { Found, Rule } from "../types";
import { isLinked, wireFix } from "../power";

export const powerNoGround: Rule = {
  rule: "power.no-ground",
  says: "Current that goes in must come back: every fed part needs its ground wire.",
  check: (c) => {
    const out: Found[] = [];
    for (const inst of c.netlist.expanded.instances.values()) {
      const ground = inst.part.pins.find((p) => p.role === "ground");
      if (!ground || inst.part.board || inst.part.id.startsWith("supply/") || !isLinked(c, inst)) continue;
      const net = c.netlist.netOf(`${inst.ref}.${ground.label}`);
      const another = (x: { ref: string }) =>
        x.ref !== inst.ref && c.netlist.instance(x.ref)?.inserted?.by !== inst.ref;
      if (net.ends.some(another) || net.nodes.some(another)) continue;
      out.push({
        rule: "power.no-ground",
        severity: "fault",
        at: [`${inst.ref}.${ground.label}`],
        message: `${label(c, inst.ref)} has no ground wire: ${ground.label} leads nowhere, so no current can return.`,
        evidence: { pin: ground.label },
        fixes: () => wireFix(c, inst.ref, `Wire ${inst.ref}.${ground.label} to ground`),
      });
    }
    return out;
  },
};
