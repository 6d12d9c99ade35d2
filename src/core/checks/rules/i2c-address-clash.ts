import type { Circuit } from "../../circuit";
import { i2cBuses, type I2cBus, type I2cMember } from "../../circuit/buses";
import { nextRef, splitEnd, type BasicEdit } from "../../project";
import { label } from "../help";
import type { Found, Fix, Rule } from "../types";
import { otherAddress } from "../i2c";

/** Moves one part to the other I2C controller of its board, when it has one with free pins. */
function otherBus(c: Circuit, b: I2cBus, m: I2cMember): Fix[] {
  const host = b.host && c.netlist.instance(b.host);
  if (!host) return [];
  const used = new Set(c.project.links.flatMap((l) => [l.from, l.to]));
  const free = (bus: string, role: string) =>
    host.part.pins.find(
      (p) =>
        !used.has(`${host.ref}.${p.label}`) &&
        !p.hazards?.some((h) => ["reserved", "reset", "console", "strapping"].includes(h.kind)) &&
        p.offers?.some((o) => o.kind === "i2c" && o.bus === bus && o.role === role),
    );
  const buses = [
    ...new Set(host.part.pins.flatMap((p) => p.offers?.flatMap((o) => (o.kind === "i2c" ? [o.bus] : [])) ?? [])),
  ];
  const bus = buses.find((x) => x !== b.bus && free(x, "sda") && free(x, "scl"));
  const links = c.project.links.filter((l) =>
    [l.from, l.to].some((e) => e === `${m.ref}.${m.sda}` || e === `${m.ref}.${m.scl}`),
  );
  const direct = links.every((l) => [l.from, l.to].some((e) => splitEnd(e).ref === host.ref));
  if (!bus || links.length !== 2 || !direct) return [];
  return [
    {
      id: "other-bus",
      label: `Move ${label(c, m.ref)} to ${bus} (${free(bus, "sda")!.label}, ${free(bus, "scl")!.label})`,
      edits: [
        ...links.map((l): BasicEdit => ({ type: "removeLink", from: l.from, to: l.to })),
        { type: "addLink", link: { from: `${m.ref}.${m.sda}`, to: `${host.ref}.${free(bus, "sda")!.label}` } },
        { type: "addLink", link: { from: `${m.ref}.${m.scl}`, to: `${host.ref}.${free(bus, "scl")!.label}` } },
      ],
    },
  ];
}

const SWITCH = "module/tca9548a";

/** Puts a bus switch in between, so that two parts with one address are never on the bus at once. */
function switchFix(c: Circuit, b: I2cBus, list: I2cMember[]): Fix[] {
  if (!c.catalogue.get(SWITCH) || !b.host) return [];
  const ref = nextRef(c.project, SWITCH);
  const links = (end: string) => c.project.links.filter((l) => l.from === end || l.to === end);
  const edits: BasicEdit[] = [{ type: "addPart", part: SWITCH, ref }];
  const host = b.sda.ends.find((e) => e.ref === b.host)?.pin;
  const clock = b.scl.ends.find((e) => e.ref === b.host)?.pin;
  const first = c.netlist.instance(list[0]!.ref)!;
  const power = first.part.pins.find((p) => p.role === "supply-in");
  const ground = first.part.pins.find((p) => p.role === "ground");
  const from = (pin: string | undefined) => {
    const l = pin && links(`${first.ref}.${pin}`)[0];
    return l ? (splitEnd(l.from).ref === first.ref ? l.to : l.from) : null;
  };
  const [plus, minus] = [from(power?.label), from(ground?.label)];
  const def = c.catalogue.get(SWITCH)!;
  const vcc = def.pins.find((p) => p.role === "supply-in")?.label;
  if (!host || !clock || !plus || !minus || !vcc) return [];
  edits.push(
    { type: "addLink", link: { from: `${ref}.${vcc}`, to: plus } },
    { type: "addLink", link: { from: `${ref}.GND`, to: minus } },
    { type: "addLink", link: { from: `${ref}.SDA`, to: `${b.host}.${host}` } },
    { type: "addLink", link: { from: `${ref}.SCL`, to: `${b.host}.${clock}` } },
  );
  list.forEach((m, i) => {
    for (const pin of [m.sda, m.scl])
      for (const l of links(`${m.ref}.${pin}`)) edits.push({ type: "removeLink", from: l.from, to: l.to });
    edits.push(
      { type: "addLink", link: { from: `${m.ref}.${m.sda}`, to: `${ref}.SD${i}` } },
      { type: "addLink", link: { from: `${m.ref}.${m.scl}`, to: `${ref}.SC${i}` } },
    );
  });
  return [{ id: "bus-switch", label: `Put a bus switch in between: ${def.name}`, edits }];
}

export const i2cAddressClash: Rule = {
  rule: "i2c.address-clash",
  says: "Every part on an I2C bus needs an address of its own.",
  check: (c) =>
    i2cBuses(c).flatMap((b) => {
      const taken = new Set(b.members.flatMap((m) => m.addresses));
      const byAddress = new Map<string, I2cMember[]>();
      for (const m of b.members) for (const a of m.addresses) byAddress.set(a, [...(byAddress.get(a) ?? []), m]);
      return [...byAddress].flatMap(([address, list]): Found[] =>
        list.length < 2
          ? []
          : [
              {
                rule: "i2c.address-clash",
                severity: "fault",
                at: list.map((m) => `${m.ref}.SDA`),
                message: `${list.map((m) => label(c, m.ref)).join(" and ")} both answer to ${address} on the same bus.`,
                evidence: { address, members: list.length },
                fixes: [
                  ...[...list].reverse().flatMap((m) => otherAddress(c, m, taken)),
                  ...otherBus(c, b, list.at(-1)!),
                  ...switchFix(c, b, list),
                ],
              },
            ],
      );
    }),
};
