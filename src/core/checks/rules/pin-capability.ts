import { waysToServe } from "../../plan/assign";
import { isBusKind } from "../../parts/catalogue";
import type { Circuit } from "../../circuit";
import type { Binding } from "../../circuit/netlist";
import { label, moveFix } from "../help";
import type { Found, Rule } from "../types";
import { hostPin, muted, needOf, factsOf, place } from "../pins";

const barred = (c: Circuit, b: Binding) =>
  hostPin(c, b)?.hazards?.some((h) => h.kind === "reserved" || h.kind === "reset") ?? false;

/** A serial line on the pin of the other direction: `uart.not-crossed` speaks for it. */
const uncrossed = (c: Circuit, b: Binding) =>
  b.need.kind === "uart" &&
  (hostPin(c, b)?.offers?.some((o) => o.kind === "uart" && o.role !== b.need.role && /^[rt]x$/.test(o.role)) ??
    false) &&
  !hostPin(c, b)?.offers?.some((o) => o.kind === "uart" && o.role === b.need.role);

export const pinCapability: Rule = {
  rule: "pin.capability",
  says: "A pin can only do what its chip wired it for.",
  check: (c) => {
    const out: Found[] = [];
    for (const b of c.netlist.bindings) {
      const pin = hostPin(c, b);
      if (!pin || barred(c, b) || muted(c, b) || uncrossed(c, b)) continue;
      const need = needOf(c, b);
      const ways = waysToServe(pin, need, factsOf(c, b));
      const bad = ways.every((w) => !w.ok) ? ways[0] : undefined;
      if (bad && !bad.ok)
        out.push({
          rule: "pin.capability",
          severity: "fault",
          at: place(b),
          message: `${b.ref}.${b.pin} (${label(c, b.ref)}) is planned on ${b.host}.${b.hostPin}, but ${bad.why}.`,
          evidence: { wants: need.role ? `${need.kind} ${need.role}` : need.kind, pin: b.hostPin },
          fixes: () => moveFix(c, b.ref, b.pin, b.host, need),
        });
    }
    // Clock and data of one part must belong to one controller.
    for (const inst of c.netlist.expanded.instances.values())
      for (const g of inst.part.groups) {
        if (!isBusKind(g.kind)) continue;
        const members = c.netlist.bindings.filter((b) => b.ref === inst.ref && Object.values(g.pins).includes(b.pin));
        if (members.some((b) => uncrossed(c, b))) continue;
        const buses = members.map((b) =>
          waysToServe(hostPin(c, b)!, b.need, factsOf(c, b)).flatMap((w) => (w.ok && w.bus ? [w.bus] : [])),
        );
        if (buses.length < 2 || buses.some((x) => !x.length)) continue;
        const common = buses.reduce((a, x) => a.filter((y) => x.includes(y)));
        if (!common.length)
          out.push({
            rule: "pin.capability",
            severity: "fault",
            at: members.flatMap((b) => [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`]),
            message: `${label(c, inst.ref)}'s lines go to different controllers: ${members.map((b, i) => `${b.pin} on ${buses[i]!.join("/")}`).join(", ")}. They must belong to one.`,
            evidence: Object.fromEntries(members.map((b, i) => [b.pin, buses[i]!.join("/")])),
            fixes: [],
          });
      }
    return out;
  },
};
