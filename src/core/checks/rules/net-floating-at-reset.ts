import type { Circuit } from "../../circuit";
import { restOf } from "../../circuit/solve";
import { splitEnd } from "../../project";
import { formatOhm } from "../../quantity";
import { decidingNet } from "../graph";
import { label, owner } from "../help";
import type { Found, Fix, Rule } from "../types";

/** Pins that, left open while the board starts, would switch something or jam a line that others use. */
const ACTS = /^(DE|RST|RESET|EN|STBY)$/;

/** A pull at a pin, beside those that other pins of the part have already. In a buffer that a part brought it is the part's own. */
function holdFix(c: Circuit, end: string, key: "pullUp" | "pullDown"): Fix[] {
  const at = splitEnd(end);
  const by = c.netlist.instance(at.ref)?.inserted?.by;
  const ref = by ?? at.ref;
  const entry = c.project.parts.find((x) => x.ref === ref);
  if (!entry) return [];
  const shifted = entry.companions?.shifter;
  const pin = by ? (typeof shifted === "object" ? shifted?.pin : undefined) : at.pin;
  if (!pin) return [];
  const before = entry.companions?.[key];
  const there = typeof before === "object" && before ? (before.pins ?? (before.pin ? [before.pin] : [])) : [];
  const ohm = typeof before === "object" && typeof before?.ohm === "number" ? before.ohm : 10_000;
  const pins = [...new Set([...there, pin])];
  return [
    {
      id: "hold",
      label: `Add ${formatOhm(ohm)} from ${end} to ${key === "pullDown" ? "ground" : "the logic supply"}`,
      edits: [{ type: "setCompanion", ref, key, value: pins.length > 1 ? { ohm, pins } : { ohm, pin } }],
    },
  ];
}

export const netFloatingAtReset: Rule = {
  rule: "net.floating-at-reset",
  says: "From power-on until the program sets it, a board's pin is an open input: gates, enables and selects must be held meanwhile.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst) =>
      inst.part.pins.flatMap((p): Found[] => {
        if (!p.mustNotFloat || p.restsAt) return [];
        const net = c.netlist.netOf(`${inst.ref}.${p.label}`);
        const hosts = net.ends.filter((e) => e.ref !== inst.ref && e.def.offers);
        const b = c.netlist.bindings.find((x) => x.ref === inst.ref && x.pin === p.label);
        if (net.kind === "supply" || net.kind === "ground" || (!hosts.length && !b)) return [];
        const { net: deciding, by } = decidingNet(c, inst.ref, p.label);
        if (deciding.ends.some((e) => e.as === "driver" && !e.def.offers)) return [];
        if (b && c.netlist.instance(b.host)?.part.board?.resetPull) return [];
        // A board pin that starts with a pull of its own, such as a strapping pin, is held too.
        const hostPin = b && c.netlist.instance(b.host)?.part.pins.find((x) => x.label === b.hostPin);
        if (hostPin?.hazards?.some((h) => h.kind === "strapping" && h.want)) return [];
        if (restOf(c.solved, deciding.id)) return [];
        const gate = inst.part.elements.some((e) => e.kind === "fet" && e.g === p.label);
        const loads = Object.values(inst.part.supplies).some((s) => s.forLoads);
        const acts = gate || loads || ACTS.test(p.label) || inst.part.elements.some((e) => e.kind === "contact");
        const select = inst.part.groups.some((g) => g.kind === "spi" && g.pins.cs === p.label);
        const key = gate || loads || p.label === "DE" ? "pullDown" : "pullUp";
        return [
          {
            rule: "net.floating-at-reset",
            severity: acts && !select ? "risk" : "note",
            at: [`${inst.ref}.${p.label}`, ...(b ? [`${b.host}.${b.hostPin}`] : [])],
            message: `Nothing holds ${by ? `${by}, the buffer's input before ` : ""}${inst.ref}.${p.label} (${label(c, owner(c, inst.ref))}) while the board starts${gate ? ": the load may come on by itself" : select ? ": it may listen to what is meant for another part" : ""}.`,
            evidence: { pin: p.label },
            fixes: () => holdFix(c, by ?? `${inst.ref}.${p.label}`, key),
          },
        ];
      }),
    ),
};
