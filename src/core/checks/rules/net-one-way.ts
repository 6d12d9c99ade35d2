import type { Circuit } from "../../circuit";
import type { Binding } from "../../circuit/netlist";
import { splitEnd } from "../../project";
import { isTwoWay, label } from "../help";
import type { Found, Fix, Rule } from "../types";

/** Takes out a buffer that the plan put into the wire; what the levels then want, their own rules say. */
function bothWaysFix(c: Circuit, b: Binding, by: string): Fix[] {
  const inst = c.netlist.instance(by);
  if (inst?.inserted?.key !== "shifter") return [];
  return [
    {
      id: "no-buffer",
      label: `Take the buffer out of the wire at ${b.ref}.${b.pin}`,
      edits: [{ type: "setCompanion", ref: inst.inserted.by, key: "shifter", value: null }],
    },
  ];
}

export const netOneWay: Rule = {
  rule: "net.one-way",
  says: "A line that both ends use in turn can't pass a buffer or an isolator that carries signals in one direction.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      if (!b.oneWay || !isTwoWay(b.need)) return [];
      const { ref, pin } = splitEnd(b.oneWay);
      const channel = c.netlist.instance(ref)!.part.channels.find((x) => x.in === pin || x.out === pin)!;
      return [
        {
          rule: "net.one-way",
          severity: "fault",
          at: [`${b.ref}.${b.pin}`, `${ref}.${channel.in}`, `${ref}.${channel.out}`],
          message: `${label(c, b.ref)} and ${label(c, b.host)} talk in turn on ${b.pin}, but ${label(c, ref)} only carries ${channel.in} to ${channel.out}: ${b.isolated ? "take an isolator that is made for such lines" : "take a shifter that works both ways"}.`,
          evidence: { in: channel.in, out: channel.out, line: b.pin },
          fixes: () => bothWaysFix(c, b, ref),
        },
      ];
    }),
};
