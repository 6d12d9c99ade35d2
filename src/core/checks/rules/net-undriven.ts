import type { Circuit } from "../../circuit";
import { elementsAt, netById, otherEnd } from "../graph";
import { freePin, label, linkedRefs } from "../help";
import type { Found, Fix, Rule } from "../types";

/**
 * Whether an open input belongs to a half of its part that nobody uses: the receive line of something that is only listened
 * to, or an input whose outputs, by their number, lead nowhere while others are in use.
 */
function isSpare(c: Circuit, ref: string, pin: string): boolean {
  const inst = c.netlist.instance(ref)!;
  const def = inst.part.pins.find((p) => p.label === pin);
  const used = (label: string) => c.netlist.netOf(`${ref}.${label}`).ends.length > 1;
  const serial = inst.part.groups.find((g) => g.kind === "uart" && Object.values(g.pins).includes(pin));
  if (serial) return Object.values(serial.pins).some((p) => p !== pin && used(p));
  if (def?.need?.kind === "uart")
    return inst.part.pins.some((p) => p.label !== pin && p.need?.kind === "uart" && used(p.label));
  const number = /(\d+)$/.exec(pin)?.[1];
  const outputs = inst.part.pins.filter((p) => p.label !== pin && (p.io === "out" || p.role === "passive"));
  const mine = outputs.filter((p) => number !== undefined && new RegExp(`^[A-Za-z+-]*${number}$`).test(p.label));
  return mine.length > 0 && !mine.some((p) => used(p.label)) && outputs.some((p) => used(p.label));
}

export const netUndriven: Rule = {
  rule: "net.undriven",
  says: "A net of inputs only has nobody who sets its level.",
  check: (c) =>
    c.netlist.nets.flatMap((n): Found[] => {
      if (n.kind === "supply" || n.kind === "ground") return [];
      const inputs = n.ends.filter((e) => e.as === "receiver");
      if (!inputs.length || n.ends.some((e) => e.as === "driver" || e.as === "both")) return [];
      // Something passive may bring a level, but not a resistor whose other end is free.
      const leads = (ref: string) =>
        elementsAt(c, n.id).some((el) => {
          const far = el.ref === ref ? netById(c, otherEnd(el, n.id)) : undefined;
          return far !== undefined && (far.nodes.length > 0 || far.ends.length > 1);
        });
      if (n.ends.some((e) => e.as === "passive" && leads(e.ref))) return [];
      const first = inputs.find((e) => e.def.need) ?? inputs[0]!;
      const inst = c.netlist.instance(first.ref)!;
      const alone = n.ends.filter((e) => !c.netlist.instance(e.ref)?.inserted).length < 2;
      const wired = linkedRefs(c.project).has(first.ref);
      if (alone && (!wired || !first.def.need || first.def.need.optional || inst.part.board)) return [];
      const spare = alone && inputs.length === 1 && isSpare(c, first.ref, first.pin);
      const host = inst.host;
      const pin = host && first.def.need ? freePin(c, host, first.def.need) : null;
      const fixes: Fix[] =
        host && pin
          ? [
              {
                id: "drive",
                label: `Wire ${first.ref}.${first.pin} to ${host}.${pin}`,
                edits: [{ type: "addLink", link: { from: `${first.ref}.${first.pin}`, to: `${host}.${pin}` } }],
              },
            ]
          : [];
      return [
        {
          rule: "net.undriven",
          severity: spare ? "note" : "fault",
          at: inputs.map((e) => `${e.ref}.${e.pin}`),
          message: spare
            ? `${first.ref}.${first.pin} (${label(c, first.ref)}) is an input that nothing drives; as the part is used here it is not needed.`
            : alone
              ? `${first.ref}.${first.pin} (${label(c, first.ref)}) is an input that nothing drives.`
              : inputs.length === 1
                ? `${first.ref}.${first.pin} (${label(c, first.ref)}) is an input: nothing on this net sets its level.`
                : `${inputs.map((e) => `${e.ref}.${e.pin}`).join(", ")} are all inputs: nothing on this net sets their level.`,
          evidence: { inputs: inputs.length },
          fixes,
        },
      ];
    }),
};
