import type { Circuit } from "../../circuit";
import type { Binding } from "../../circuit/netlist";
import { findPin } from "../../parts/catalogue";
import { effectiveNeed, hostFacts, waysToServe } from "../../plan/assign";
import { label } from "../help";
import type { Found, Rule } from "../types";

/** The one controller that a bus line can be on at its pin; null where there is a choice, or none. */
function onlyBus(c: Circuit, b: Binding): string | null {
  const host = c.netlist.instance(b.host);
  const inst = c.netlist.instance(b.ref);
  const pin = host && findPin(host.part, b.hostPin);
  const def = inst && findPin(inst.part, b.pin);
  if (!host?.part.board || !pin || !inst || !def?.need) return null;
  const group = inst.part.groups.find((g) => g.kind === b.need.kind && Object.values(g.pins).includes(b.pin));
  const need = effectiveNeed(c.netlist, b.ref, def);
  const ways = waysToServe(pin, need, hostFacts(c.project, c.netlist, b.host, b.ref, group?.id));
  const buses = [...new Set(ways.flatMap((w) => (w.ok && w.bus && !w.software ? [w.bus] : [])))];
  return buses.length === 1 ? buses[0]! : null;
}

/** One controller drives one line of a kind: two parts whose lines are on two pins of it can't both be reached. */
export const busSplit: Rule = {
  rule: "pin.bus-split",
  says: "A bus controller has one clock and one data line: parts on one bus share those pins, they don't each take a pair of their own.",
  check: (c) => {
    const lines = new Map<string, Map<string, Binding[]>>();
    for (const b of c.netlist.bindings) {
      if (b.need.kind !== "i2c" && b.need.kind !== "spi") continue;
      const role = b.need.role ?? "";
      const bus = role === "cs" ? null : onlyBus(c, b);
      if (!bus) continue;
      const key = `${b.host} ${bus} ${role}`;
      const pins = lines.get(key) ?? new Map<string, Binding[]>();
      lines.set(key, pins.set(b.hostPin, [...(pins.get(b.hostPin) ?? []), b]));
    }
    return [...lines].flatMap(([key, pins]): Found[] => {
      if (pins.size < 2) return [];
      const [host, bus, role] = key.split(" ") as [string, string, string];
      const list = [...pins.values()].map((l) => l[0]!);
      return [
        {
          rule: "pin.bus-split",
          severity: "fault",
          at: list.flatMap((b) => [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`]),
          message: `${bus.toUpperCase()} of ${label(c, host)} has its ${role.toUpperCase()} on ${list.map((b) => `${b.hostPin} (${label(c, b.ref)})`).join(" and on ")}: the program can use one of these pins only. Wire all of them to one.`,
          evidence: { bus, pins: list.map((b) => b.hostPin).join(", ") },
          fixes: list.slice(1).map((b) => ({
            id: `share-${b.ref}.${b.pin}`,
            label: `Wire ${b.ref}.${b.pin} to ${list[0]!.hostPin} as well`,
            edits: [
              {
                type: "moveLink",
                end: `${b.ref}.${b.pin}`,
                from: `${b.host}.${b.hostPin}`,
                to: `${host}.${list[0]!.hostPin}`,
              },
            ],
          })),
        },
      ];
    });
  },
};
