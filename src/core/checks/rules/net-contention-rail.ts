import type { Circuit } from "../../circuit";
import { findPin } from "../../parts/catalogue";
import { splitEnd } from "../../project";
import { formatV } from "../../quantity";
import { endOfLink, label, round } from "../help";
import type { Found, Rule } from "../types";
import { railWords, unwireFixes } from "./words";

/** Whether a wire brings a part here that the pin is to drive: a rail on the same net hides that from the netlist. */
function isMeant(c: Circuit, end: string): boolean {
  return c.project.links.some((l) => {
    const far = endOfLink(l, end);
    if (far === null) return false;
    const { ref, pin } = splitEnd(far);
    const part = c.netlist.instance(ref)?.part;
    const need = part && findPin(part, pin)?.need;
    return need !== undefined && ["digital-out", "pwm", "dac"].includes(need.kind);
  });
}

/** An output that is joined straight to a rail: it fights the supply at every other level. */
export const contentionRail: Rule = {
  rule: "net.contention",
  says: "Two outputs on one net fight: one pulls up while the other pulls down. A rail always wins, and the pin dies.",
  check: (c) =>
    c.netlist.nets.flatMap((net): Found[] => {
      if (net.kind !== "supply" && net.kind !== "ground") return [];
      if (!net.V) return [];
      return net.ends.flatMap((e): Found[] => {
        const level = c.netlist.level(e.ref, e.pin);
        const inst = c.netlist.instance(e.ref)!;
        const end = `${e.ref}.${e.pin}`;
        const idle = e.as === "none" && e.def.offers?.some((o) => o.kind === "digital" && o.out) && inst.part.board;
        const drives = (e.as === "driver" && level?.output === "push-pull") || (idle && isMeant(c, end));
        if (!drives && !idle) return [];
        // A voltage that the pin does not stand at all has a finding of its own.
        return [
          {
            rule: "net.contention",
            severity: drives ? "stop" : "note",
            at: [end],
            message: drives
              ? `${end} (${label(c, e.ref)}) is an output and is joined straight to ${railWords(c, net)}: at the other level it is a short. Do not power this.`
              : `${end} is joined straight to ${railWords(c, net)}, and nothing in the plan asks for it: as soon as a program makes it an output, it is shorted.`,
            evidence: { rail_V: round(net.V!.typ), rail: `${net.name} ${formatV(net.V!.typ)}` },
            fixes: () => unwireFixes(c, end, 1),
          },
        ];
      });
    }),
};
