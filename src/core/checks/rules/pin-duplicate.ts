import { followers, shareKey } from "../../plan/assign";
import { findPin } from "../../parts/catalogue";
import type { Circuit } from "../../circuit";
import type { Binding } from "../../circuit/netlist";
import { moveFix } from "../help";
import type { Found, Rule, Severity } from "../types";
import { needOf } from "../pins";

/** Uses of one pin that belong together: the pieces of a chain, one-wire sensors, inputs wired to one another on purpose. */
function goTogether(c: Circuit, list: Binding[]): boolean {
  const own = list.filter((b) => !b.chainedAfter);
  if (own.length < 2 || own.every((b) => b.need.role === "onewire")) return true;
  const led = followers(c.project, c.netlist, own[0]!.host);
  return own.filter((b) => !led.has(`${b.ref}.${b.pin}`)).length < 2;
}

/** Shared selects and shared serial ports have rules of their own. */
const spokenFor = (c: Circuit, list: Binding[]) =>
  list.every((b) => b.need.kind === "uart" && b.need.role === "tx") ||
  list.every((b) =>
    c.netlist
      .instance(b.ref)!
      .part.groups.some((g) => g.kind === "spi" && g.pins.cs === b.pin && b.need.kind !== "uart"),
  );

/** Contacts side by side, or in a grid that is scanned, share an input by intent: any of them closes it. */
const contactsOnly = (c: Circuit, list: Binding[]) =>
  list.every((b) => {
    const part = c.netlist.instance(b.ref)!.part;
    return b.need.kind === "digital-in" && part.pins.length === 2 && part.elements.every((e) => e.kind === "contact");
  });

export const pinDuplicate: Rule = {
  rule: "pin.duplicate",
  says: "Two needs can't share one pin unless they are lines of a bus.",
  check: (c) => {
    const byPin = new Map<string, Binding[]>();
    for (const b of c.netlist.bindings) {
      const k = `${b.host}.${b.hostPin}`;
      byPin.set(k, [...(byPin.get(k) ?? []), b]);
    }
    return [...byPin].flatMap(([pin, list]): Found[] => {
      const keys = new Set(list.map((b) => shareKey(b.need)));
      if (goTogether(c, list) || spokenFor(c, list) || contactsOnly(c, list)) return [];
      if (list.length < 2 || (keys.size === 1 && !keys.has(null))) return [];
      const drives = list.filter((b) => findPin(c.netlist.instance(b.ref)!.part, b.pin)?.io === "out").length;
      const severity: Severity =
        drives > 1 || (drives === 1 && list.some((b) => b.need.kind.endsWith("out"))) ? "stop" : "fault";
      const last = list[list.length - 1]!;
      return [
        {
          rule: "pin.duplicate",
          severity,
          at: [pin, ...list.map((b) => `${b.ref}.${b.pin}`)],
          message: `${pin} is used by ${list.map((b) => `${b.ref}.${b.pin}`).join(" and ")}, which can't share a pin${severity === "stop" ? ": two outputs would fight" : ""}.`,
          evidence: { uses: list.length, outputs: drives },
          fixes: () => moveFix(c, last.ref, last.pin, last.host, needOf(c, last)),
        },
      ];
    });
  },
};
