import type { Circuit } from "../circuit";
import { i2cBuses, type I2cBus, type I2cMember } from "../circuit/buses";
import { nextDown } from "../circuit/formulas";
import { nextUp } from "../quantity";
import { nextRef, splitEnd, type BasicEdit } from "../project";
import { formatOhm, formatSI } from "../quantity";
import type { Net } from "../circuit/netlist";
import { elementsAt, netById, otherEnd } from "./graph";
import { label, round } from "./help";
import type { Finding, Fix, Rule } from "./types";

const sdaOf = (b: I2cBus) => b.members.map((m) => `${m.ref}.${m.sda}`);
const names = (c: Circuit, list: readonly { ref: string }[]) => list.map((m) => label(c, m.ref)).join(", ");

function otherAddress(c: Circuit, m: I2cMember, taken: Set<string>): Fix[] {
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

const clash: Rule = {
  rule: "i2c.address-clash",
  says: "Every part on an I2C bus needs an address of its own.",
  check: (c) =>
    i2cBuses(c).flatMap((b) => {
      const taken = new Set(b.members.flatMap((m) => m.addresses));
      const byAddress = new Map<string, I2cMember[]>();
      for (const m of b.members) for (const a of m.addresses) byAddress.set(a, [...(byAddress.get(a) ?? []), m]);
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

const RESERVED = (a: number) => a <= 0x07 || a >= 0x78;

const reserved: Rule = {
  rule: "i2c.reserved-address",
  says: "Addresses up to 0x07 and from 0x78 belong to the bus itself (UM10204, table 3).",
  check: (c) =>
    i2cBuses(c).flatMap((b) =>
      b.members
        .filter((m) => m.address && RESERVED(Number(m.address)))
        .map((m): Finding => ({
          rule: "i2c.reserved-address",
          severity: "risk",
          at: [`${m.ref}.${m.sda}`],
          message: `${label(c, m.ref)} answers to ${m.address}, which is reserved: other parts may take it for a command.`,
          evidence: { address: m.address! },
          fixes: otherAddress(c, m, new Set([...b.members.flatMap((x) => x.addresses), m.address!])),
        })),
    ),
};

/** Resistors of a net to supplies, fed or not: a pull-up to a dead rail is the dead rail's finding, not a missing pull-up. */
const pullsToAny = (c: Circuit, net: Net) =>
  elementsAt(c, net.id).some((e) => e.kind === "resistor" && netById(c, otherEnd(e, net.id))?.kind === "supply");

const missing: Rule = {
  rule: "i2c.pullup-missing",
  says: "I2C lines are only ever pulled low by the parts: without a pull-up nothing makes them high.",
  check: (c) =>
    i2cBuses(c).flatMap((b): Finding[] => {
      const first = b.members[0]!;
      const lines: [string, Net][] = [
        ["SDA", b.sda],
        ["SCL", b.scl],
      ];
      const bare = lines.filter(([, net]) => !pullsToAny(c, net));
      if (!bare.length) return [];
      const own = nextUp(Math.max(b.window.min_ohm * 1.3, 2200), "E12", c.project.drawer.resistors_ohm);
      const ohm = b.window.max_ohm >= 4700 ? 4700 : own;
      return [
        {
          rule: "i2c.pullup-missing",
          severity: "fault",
          at: b.members.map((m) => `${m.ref}.${bare[0]![0]}`),
          message: `${bare.map(([n]) => n).join(" and ")} of the bus with ${names(c, b.members)} ${bare.length > 1 ? "have" : "has"} no pull-up resistor to a supply.`,
          evidence: { lines: bare.map(([n]) => n).join("+") },
          fixes: [
            {
              id: "pull-up",
              label: `Add ${formatOhm(ohm)} pull-ups to the board's logic voltage`,
              edits: [{ type: "setCompanion", ref: first.ref, key: "pullUp", value: { ohm } }],
            },
          ],
        },
      ];
    }),
};

const strong: Rule = {
  rule: "i2c.pullup-strong",
  says: "All pull-ups of a bus in parallel must not ask more than 3 mA of the part that pulls low.",
  check: (c) =>
    i2cBuses(c).flatMap((b): Finding[] => {
      if (!b.pulls.length || b.ohm >= b.window.min_ohm) return [];
      return [
        {
          rule: "i2c.pullup-strong",
          severity: "risk",
          at: sdaOf(b),
          message: `${b.pulls.length} pull-ups in parallel make ${formatOhm(b.ohm)}; at ${b.V.toFixed(1)} V the bus wants at least ${formatOhm(b.window.min_ohm)}. Take some modules' pull-ups off.`,
          evidence: { parallel_ohm: round(b.ohm, 0), least_ohm: round(b.window.min_ohm, 0) },
          fixes: [...ownPullsOff(c, b)],
        },
      ];
    }),
};

/** Pull-ups that the plan itself added are the first to go. */
function ownPullsOff(c: Circuit, b: I2cBus): Fix[] {
  const by = b.pulls.map((p) => c.netlist.instance(p.ref)?.inserted).find((x) => x?.key === "pullUp");
  return by
    ? [
        {
          id: "pulls-off",
          label: `Take the added pull-ups of ${label(c, by.by)} out`,
          edits: [{ type: "setCompanion", ref: by.by, key: "pullUp", value: null }],
        },
      ]
    : [];
}

const setClock = (b: I2cBus, clock_Hz: number | null, words: string): Fix[] =>
  b.host && b.bus
    ? [{ id: "slower", label: words, edits: [{ type: "setBus", host: b.host, bus: b.bus, clock_Hz }] }]
    : [];

/** The resistors themselves add a little to the line. */
const ROOM = 0.9;

const rise: Rule = {
  rule: "i2c.rise-time",
  says: "The pull-up must charge the whole line in time: t = 0.8473 · R · C (UM10204: 1000, 300 or 120 ns).",
  check: (c) =>
    i2cBuses(c).flatMap((b): Finding[] => {
      if (!b.pulls.length || b.rise_s <= b.rise_max_s || b.load.total_F > 400e-12) return [];
      // What must stand beside the pull-ups that are there, so that all in parallel come under the limit.
      const beside = 1 / (1 / (b.window.max_ohm * ROOM) - 1 / b.ohm);
      const ohm = beside > 0 ? nextDown(beside, c.project.drawer.resistors_ohm) : 0;
      const parallel = ohm ? 1 / (1 / ohm + 1 / b.ohm) : 0;
      const slower = b.clock_Hz > 100_000 && b.rise_s <= 1000e-9;
      return [
        {
          rule: "i2c.rise-time",
          severity: "risk",
          at: sdaOf(b),
          message: `${formatOhm(b.ohm)} and ${formatSI(b.load.total_F, "F")} let the lines rise in ${formatSI(b.rise_s, "s")}; at ${b.clock_Hz / 1000} kHz they may take ${formatSI(b.rise_max_s, "s")}.`,
          evidence: {
            pullup_ohm: round(b.ohm, 0),
            line_pF: round(b.load.total_F * 1e12, 0),
            rise_ns: round(b.rise_s * 1e9, 0),
            most_ns: round(b.rise_max_s * 1e9, 0),
          },
          fixes: [
            ...(ohm && parallel >= b.window.min_ohm
              ? [
                  {
                    id: "stronger",
                    label: `Add ${formatOhm(ohm)} pull-ups: ${formatOhm(parallel)} in all`,
                    edits: [
                      { type: "setCompanion" as const, ref: b.members[0]!.ref, key: "pullUp" as const, value: { ohm } },
                    ],
                  },
                ]
              : []),
            ...(slower ? setClock(b, 100_000, "Run the bus at 100 kHz") : []),
          ],
        },
      ];
    }),
};

const MOST_F = 400e-12;

const capacitance: Rule = {
  rule: "i2c.capacitance",
  says: "An I2C line may carry 400 pF in all: pins, wires and breadboard together (UM10204).",
  check: (c) =>
    i2cBuses(c).flatMap((b): Finding[] => {
      if (b.load.total_F <= MOST_F) return [];
      const long = c.project.parts.filter((p) => b.members.some((m) => m.ref === p.ref) && (p.wire_cm ?? 0) > 30);
      return [
        {
          rule: "i2c.capacitance",
          severity: "fault",
          at: sdaOf(b),
          message: `The lines of ${names(c, b.members)} come to ${formatSI(b.load.total_F, "F")} (${b.load.cm} cm of wire); 400 pF is the most. Shorten them or use a bus extender.`,
          evidence: {
            line_pF: round(b.load.total_F * 1e12, 0),
            wires_pF: round(b.load.wires_F * 1e12, 0),
            most_pF: 400,
          },
          fixes: long.map((p) => ({
            id: `shorten-${p.ref}`,
            label: `Plan 30 cm wires for ${label(c, p.ref)}`,
            edits: [{ type: "setWire", ref: p.ref, wire_cm: 30 }],
          })),
        },
      ];
    }),
};

const clock: Rule = {
  rule: "i2c.clock",
  says: "The slowest part of a bus sets its clock.",
  check: (c) =>
    i2cBuses(c).flatMap((b): Finding[] => {
      if (!b.slowest || b.clock_Hz <= b.slowest.max_Hz) return [];
      return [
        {
          rule: "i2c.clock",
          severity: "fault",
          at: [`${b.slowest.ref}.${b.slowest.scl}`],
          message: `The bus shall run at ${b.clock_Hz / 1000} kHz; ${label(c, b.slowest.ref)} goes up to ${b.slowest.max_Hz / 1000} kHz.`,
          evidence: { clock_kHz: b.clock_Hz / 1000, most_kHz: b.slowest.max_Hz / 1000 },
          fixes: setClock(b, b.slowest.max_Hz, `Run the bus at ${b.slowest.max_Hz / 1000} kHz`),
        },
      ];
    }),
};

export const i2cRules: Rule[] = [clash, reserved, missing, strong, rise, capacitance, clock];
