import type { Circuit } from "../circuit";
import { formatOhm } from "../quantity";
import type { Net } from "../netlist";
import { label, round } from "./help";
import type { Finding, Fix, Rule } from "./types";

interface Member {
  ref: string;
  address: string | undefined;
  /** Every address that it answers to, its own first. */
  addresses: string[];
  scl: string;
  sda: Net;
}

/** I2C members by the net of their data line. */
function i2cBuses(c: Circuit): Map<Net, Member[]> {
  const out = new Map<Net, Member[]>();
  for (const inst of c.netlist.expanded.instances.values())
    for (const g of inst.part.groups) {
      if (g.kind !== "i2c" || !g.pins.sda || !g.pins.scl) continue;
      const sda = c.netlist.netOf(`${inst.ref}.${g.pins.sda}`);
      if (sda.ends.length < 2) continue;
      out.set(sda, [
        ...(out.get(sda) ?? []),
        {
          ref: inst.ref,
          address: g.address?.toLowerCase(),
          addresses: [...(g.address ? [g.address] : []), ...(g.also ?? [])].map((a) => a.toLowerCase()),
          scl: g.pins.scl,
          sda,
        },
      ]);
    }
  return out;
}

function otherAddress(c: Circuit, m: Member, taken: Set<string>): Fix[] {
  const option = c.netlist.instance(m.ref)?.part.options.find((o) => o.key === "address");
  if (option?.kind !== "choice") return [];
  return option.choices
    .filter((x) => !taken.has(x.value.toLowerCase()))
    .map((x) => ({
      id: `address-${x.value}`,
      label: `Set ${label(c, m.ref)} to ${x.value} (${x.label.replace(/^0x..: /i, "")})`,
      edits: [{ type: "setOption", ref: m.ref, key: "address", value: x.value }],
    }));
}

const clash: Rule = {
  rule: "i2c.address-clash",
  says: "Every part on an I2C bus needs an address of its own.",
  check: (c) =>
    [...i2cBuses(c).values()].flatMap((members) => {
      const taken = new Set(members.flatMap((m) => m.addresses));
      const byAddress = new Map<string, Member[]>();
      for (const m of members) for (const a of m.addresses) byAddress.set(a, [...(byAddress.get(a) ?? []), m]);
      return [...byAddress].flatMap(([address, list]): Finding[] =>
        list.length < 2
          ? []
          : [
              {
                rule: "i2c.address-clash",
                severity: "fault",
                at: list.map((m) => `${m.ref}.SDA`),
                message: `${list.map((m) => label(c, m.ref)).join(" and ")} both answer to ${address} on the same bus.`,
                evidence: { address, members: list.length },
                fixes: [...list].reverse().flatMap((m) => otherAddress(c, m, taken)),
              },
            ],
      );
    }),
};

/** Resistors of a net to supplies, fed or not: a pull-up to a dead rail is the dead rail's finding, not a missing pull-up. */
const pullsToAny = (c: Circuit, net: Net) => {
  const supply = new Set(c.netlist.nets.filter((n) => n.kind === "supply").map((n) => n.id));
  return c.netlist.elements.some(
    (e) => e.kind === "resistor" && ((e.a === net.id && supply.has(e.b)) || (e.b === net.id && supply.has(e.a))),
  );
};

/** Pull-up resistors of a net to fed supplies. */
function pullUps(c: Circuit, net: Net) {
  const supply = new Map(c.netlist.nets.filter((n) => n.kind === "supply").map((n) => [n.id, n]));
  return c.netlist.elements.flatMap((e) => {
    if (e.kind !== "resistor" || (e.a !== net.id && e.b !== net.id)) return [];
    const rail = supply.get(e.a === net.id ? e.b : e.a);
    return rail?.V ? [{ ohm: e.ohm!, V: rail.V, ref: e.ref }] : [];
  });
}

const missing: Rule = {
  rule: "i2c.pullup-missing",
  says: "I2C lines are only ever pulled low by the parts: without a pull-up nothing makes them high.",
  check: (c) =>
    [...i2cBuses(c)].flatMap(([sda, members]): Finding[] => {
      const first = members[0]!;
      const lines: [string, Net][] = [
        ["SDA", sda],
        ["SCL", c.netlist.netOf(`${first.ref}.${first.scl}`)],
      ];
      const bare = lines.filter(([, net]) => !pullsToAny(c, net));
      if (!bare.length) return [];
      return [
        {
          rule: "i2c.pullup-missing",
          severity: "fault",
          at: members.map((m) => `${m.ref}.${bare[0]![0]}`),
          message: `${bare.map(([n]) => n).join(" and ")} of the bus with ${members.map((m) => label(c, m.ref)).join(", ")} ${bare.length > 1 ? "have" : "has"} no pull-up resistor to a supply.`,
          evidence: { lines: bare.map(([n]) => n).join("+") },
          fixes: [
            {
              id: "pull-up",
              label: "Add 4.7 kΩ pull-ups to the board's logic voltage",
              edits: [{ type: "setCompanion", ref: first.ref, key: "pullUp", value: { ohm: 4700 } }],
            },
          ],
        },
      ];
    }),
};

/** UM10204: a driver must sink 3 mA at 0.4 V, so Rp(min) = (V − 0.4) / 3 mA. */
const strong: Rule = {
  rule: "i2c.pullup-strong",
  says: "All pull-ups of a bus in parallel must not ask more than 3 mA of the part that pulls low.",
  check: (c) =>
    [...i2cBuses(c)].flatMap(([sda, members]): Finding[] => {
      const pulls = pullUps(c, sda);
      if (!pulls.length) return [];
      const ohm = 1 / pulls.reduce((s, p) => s + 1 / p.ohm, 0);
      const V = Math.max(...pulls.map((p) => p.V.max));
      const least = (V - 0.4) / 0.003;
      if (ohm >= least) return [];
      return [
        {
          rule: "i2c.pullup-strong",
          severity: "risk",
          at: members.map((m) => `${m.ref}.SDA`),
          message: `${pulls.length} pull-ups in parallel make ${formatOhm(ohm)}; at ${V.toFixed(1)} V the bus wants at least ${formatOhm(least)}. Take some modules' pull-ups off.`,
          evidence: { parallel_ohm: round(ohm, 0), least_ohm: round(least, 0) },
          fixes: [],
        },
      ];
    }),
};

/** SPI parts that share a data-out line: each must let go of it when it is not selected. */
const held: Rule = {
  rule: "spi.miso-held",
  says: "A part that keeps driving the shared data line when it is not selected drowns out the others.",
  check: (c) => {
    const lines = new Map<Net, { ref: string; pin: string; holds: boolean }[]>();
    for (const inst of c.netlist.expanded.instances.values())
      for (const g of inst.part.groups) {
        if (g.kind !== "spi" || !g.pins.miso) continue;
        const net = c.netlist.netOf(`${inst.ref}.${g.pins.miso}`);
        lines.set(net, [...(lines.get(net) ?? []), { ref: inst.ref, pin: g.pins.miso, holds: g.holdsData ?? false }]);
      }
    return [...lines.values()].flatMap((list): Finding[] => {
      const holders = list.filter((m) => m.holds);
      if (list.length < 2 || !holders.length) return [];
      return [
        {
          rule: "spi.miso-held",
          severity: "fault",
          at: holders.map((m) => `${m.ref}.${m.pin}`),
          message: `${holders.map((m) => label(c, m.ref)).join(" and ")} ${holders.length > 1 ? "keep" : "keeps"} driving the data line when not selected, and ${
            list
              .filter((m) => !m.holds)
              .map((m) => label(c, m.ref))
              .join(", ") || "the others"
          } can't be heard. Give it a bus of its own, or a part that lets go.`,
          evidence: { members: list.length, holders: holders.length },
          fixes: [],
        },
      ];
    });
  },
};

export const busRules: Rule[] = [clash, missing, strong, held];
