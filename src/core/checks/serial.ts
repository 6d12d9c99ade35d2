import { leadClock, spiBuses, uartLinks, type SpiBus, type UartLink } from "../circuit/buses";
import { findPin } from "../parts/catalogue";
import type { Circuit } from "../circuit";
import type { Net } from "../circuit/netlist";
import { splitEnd } from "../project";
import { freePin, label, linkOf, moveFix, round } from "./help";
import type { Finding, Fix, Rule } from "./types";

const MHz = (hz: number) => `${Number((hz / 1e6).toFixed(2))} MHz`;

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
        if (net.ends.length < 2) continue;
        lines.set(net, [...(lines.get(net) ?? []), { ref: inst.ref, pin: g.pins.miso, holds: g.holdsData ?? false }]);
      }
    return [...lines.values()].flatMap((list): Finding[] => {
      const holders = list.filter((m) => m.holds);
      if (list.length < 2 || !holders.length) return [];
      const rest = list.filter((m) => !m.holds).map((m) => label(c, m.ref));
      return [
        {
          rule: "spi.miso-held",
          severity: "fault",
          at: holders.map((m) => `${m.ref}.${m.pin}`),
          message: `${holders.map((m) => label(c, m.ref)).join(" and ")} ${holders.length > 1 ? "keep" : "keeps"} driving the data line when not selected, and ${rest.join(", ") || "the others"} can't be heard. Give it a bus of its own, or a part that lets go.`,
          evidence: { members: list.length, holders: holders.length },
          fixes: holders.flatMap((m) => dropMiso(c, m.ref, m.pin)),
        },
      ];
    });
  },
};

/** A display is only written to: its data-out may stay open. */
function dropMiso(c: Circuit, ref: string, pin: string): Fix[] {
  const def = findPin(c.netlist.instance(ref)!.part, pin);
  const links = c.project.links.filter((l) => l.from === `${ref}.${pin}` || l.to === `${ref}.${pin}`);
  return def?.need?.optional && links.length
    ? [
        {
          id: "drop-data-out",
          label: `Leave ${ref}.${pin} open: ${label(c, ref)} is only written to`,
          edits: links.map((l) => ({ type: "removeLink" as const, from: l.from, to: l.to })),
        },
      ]
    : [];
}

const shared: Rule = {
  rule: "spi.cs-shared",
  says: "Every part on an SPI bus needs a select line of its own.",
  check: (c) =>
    spiBuses(c).flatMap((b) => {
      const bySelect = new Map<Net, SpiBus["members"]>();
      for (const m of b.members)
        if (m.csNet && m.csNet.kind !== "ground" && m.csNet.ends.length > 1)
          bySelect.set(m.csNet, [...(bySelect.get(m.csNet) ?? []), m]);
      return [...bySelect].flatMap(([net, list]): Finding[] => {
        if (list.length < 2) return [];
        const last = list.at(-1)!;
        const end = `${last.ref}.${last.cs}`;
        const need = findPin(c.netlist.instance(last.ref)!.part, last.cs!)?.need;
        const pin = need && b.host ? freePin(c, b.host, need) : null;
        const link = b.host ? linkOf(c, last.ref, last.cs!, b.host) : undefined;
        return [
          {
            rule: "spi.cs-shared",
            severity: "fault",
            at: list.map((m) => `${m.ref}.${m.cs}`),
            message: `${list.map((m) => label(c, m.ref)).join(" and ")} are selected by one line (${net.name}): both would answer at once.`,
            evidence: { members: list.length },
            fixes:
              pin && link
                ? [
                    {
                      id: "own-select",
                      label: `Move ${end} to ${pin}`,
                      edits: [
                        {
                          type: "moveLink",
                          end,
                          from: link.from === end ? link.to : link.from,
                          to: `${b.host}.${pin}`,
                        },
                      ],
                    },
                  ]
                : [],
          },
        ];
      });
    }),
};

const clock: Rule = {
  rule: "spi.clock",
  says: "Loose leads carry about 8 MHz up to 15 cm, 4 MHz up to 30 cm and 1 MHz beyond; a part has a limit of its own.",
  check: (c) =>
    spiBuses(c).flatMap((b): Finding[] => {
      if (b.asked_Hz === null) return [];
      const slow = b.members.filter((m) => b.asked_Hz! > Math.min(m.max_Hz, leadClock(m.cm)));
      if (!slow.length) return [];
      const first = slow[0]!;
      const byPart = b.asked_Hz > first.max_Hz;
      return [
        {
          rule: "spi.clock",
          severity: "risk",
          at: slow.map((m) => m.ref),
          message: `The bus shall run at ${MHz(b.asked_Hz)}; ${byPart ? `${label(c, first.ref)} takes ${MHz(first.max_Hz)} at most` : `${first.cm} cm of leads to ${label(c, first.ref)} carry about ${MHz(leadClock(first.cm))}`}.`,
          evidence: {
            asked_MHz: round(b.asked_Hz / 1e6, 2),
            advised_MHz: round(b.common_Hz / 1e6, 2),
            leads_cm: first.cm,
          },
          fixes:
            b.host && b.bus
              ? [
                  {
                    id: "slower",
                    label: `Run the bus at ${MHz(b.common_Hz)}`,
                    edits: [{ type: "setBus", host: b.host, bus: b.bus, clock_Hz: b.common_Hz }],
                  },
                ]
              : [],
        },
      ];
    }),
};

const mode: Rule = {
  rule: "spi.mode",
  says: "Parts that read the clock's other edge need their own mode: set it with every transaction.",
  check: (c) =>
    spiBuses(c)
      .filter((b) => b.switchesMode)
      .map((b): Finding => ({
        rule: "spi.mode",
        severity: "note",
        at: b.members.map((m) => m.ref),
        message: `${b.members.map((m) => `${label(c, m.ref)} mode ${m.mode}`).join(", ")}: each transaction must set its own mode and clock.`,
        evidence: { modes: [...new Set(b.members.map((m) => m.mode))].join(", ") },
        fixes: [],
      })),
};

/** On AVRs the controller falls out of its role when its own select pin is an input and goes low. */
const ownSelect: Rule = {
  rule: "spi.own-select",
  says: "On AVRs the SPI controller's own select pin must be an output: as an input that goes low it stops the bus.",
  check: (c) =>
    spiBuses(c).flatMap((b) => {
      const board = b.host ? c.netlist.instance(b.host)?.part : undefined;
      if (!b.host || board?.board?.family !== "avr") return [];
      const own = board.pins.filter((p) =>
        p.offers?.some((o) => o.kind === "spi" && o.bus === b.bus && o.role === "cs"),
      );
      return c.netlist.bindings
        .filter((x) => x.host === b.host && own.some((p) => p.label === x.hostPin))
        .filter((x) => ["digital-in", "interrupt", "adc", "digital-io"].includes(x.need.kind))
        .map((x): Finding => ({
          rule: "spi.own-select",
          severity: "risk",
          at: [`${x.ref}.${x.pin}`, `${b.host}.${x.hostPin}`],
          message: `${x.ref}.${x.pin} is read at ${b.host}.${x.hostPin}, the SPI controller's own select: when it goes low, the bus with ${b.members.map((m) => label(c, m.ref)).join(", ")} stops.`,
          evidence: { pin: x.hostPin, bus: b.bus ?? b.sck.name },
          fixes: moveFix(c, x.ref, x.pin, b.host!, x.need),
        }));
    }),
};

/** Swaps the two data wires of a serial link. */
function crossFix(c: Circuit, u: UartLink): Fix[] {
  const link = (pin: string) => linkOf(c, u.ref, pin, u.host);
  const [a, b] = u.lines;
  const [la, lb] = [a && link(a.pin), b && link(b.pin)];
  if (!a || !b || !la || !lb) return [];
  const far = (l: { from: string; to: string }) => (splitEnd(l.from).ref === u.ref ? l.to : l.from);
  return [
    {
      id: "cross",
      label: `Cross them: ${a.pin} to ${splitEnd(far(lb)).pin}, ${b.pin} to ${splitEnd(far(la)).pin}`,
      edits: [
        { type: "removeLink", from: la.from, to: la.to },
        { type: "removeLink", from: lb.from, to: lb.to },
        { type: "addLink", link: { from: `${u.ref}.${a.pin}`, to: far(lb) } },
        { type: "addLink", link: { from: `${u.ref}.${b.pin}`, to: far(la) } },
      ],
    },
  ];
}

const notCrossed: Rule = {
  rule: "uart.not-crossed",
  says: "One side's transmit goes to the other side's receive: TX to RX, RX to TX.",
  check: (c) =>
    uartLinks(c).flatMap((u): Finding[] => {
      const wrong = u.lines.filter((l) => !l.crossed);
      if (!wrong.length) return [];
      return [
        {
          rule: "uart.not-crossed",
          severity: "fault",
          at: wrong.flatMap((l) => [`${u.ref}.${l.pin}`, `${u.host}.${l.hostPin}`]),
          message: `${wrong.map((l) => `${u.ref}.${l.pin} meets ${u.host}.${l.hostPin}`).join(" and ")}: ${label(c, u.ref)}'s TX belongs to the board's RX, and its RX to the board's TX.`,
          evidence: { lines: wrong.length },
          fixes: crossFix(c, u),
        },
      ];
    }),
};

const oneEach: Rule = {
  rule: "uart.shared",
  says: "A serial port talks to one part: two would talk at once, and both hear what is meant for one.",
  check: (c) => {
    const ports = new Map<string, UartLink[]>();
    const all = uartLinks(c);
    for (const u of all)
      if (u.ports.length === 1)
        ports.set(`${u.host}:${u.ports[0]}`, [...(ports.get(`${u.host}:${u.ports[0]}`) ?? []), u]);
    // Where the chip routes freely, one pin with two parts on it still is one port.
    for (const u of all)
      for (const l of u.lines) {
        const key = `${u.host}:${l.hostPin}`;
        const together = all.filter(
          (x) => x.host === u.host && x.ports.length > 1 && x.lines.some((y) => y.hostPin === l.hostPin),
        );
        if (together.length > 1) ports.set(key, together);
      }
    return [...ports].flatMap(([port, list]): Finding[] => {
      if (list.length < 2) return [];
      const last = list.at(-1)!;
      const inst = c.netlist.instance(last.ref)!;
      return [
        {
          rule: "uart.shared",
          severity: "fault",
          at: list.map((u) => `${u.ref}.${u.lines[0]!.pin}`),
          message: `${list.map((u) => label(c, u.ref)).join(" and ")} are both on ${port.split(":")[1]} of ${label(c, last.host)}. Give each a port of its own.`,
          evidence: { parts: list.length, port: port.split(":")[1]! },
          fixes:
            last.lines.length === 1
              ? moveFix(
                  c,
                  last.ref,
                  last.lines[0]!.pin,
                  last.host,
                  findPin(inst.part, last.lines[0]!.pin)!.need!,
                  // A pin of a port that another part uses would only move the trouble.
                  new Set(all.filter((u) => u.host === last.host && u.ports.length === 1).map((u) => u.ports[0]!)),
                )
              : [],
        },
      ];
    });
  },
};

const RISK = 0.02;
const FAULT = 0.04;
const pct = (x: number) => `${(x * 100).toFixed(1)} %`;

const baud: Rule = {
  rule: "uart.baud",
  says: "Both ends must agree on the rate within a few percent: at 2 % noise starts to matter, at 4 % bits are read wrong.",
  check: (c) =>
    uartLinks(c).flatMap((u): Finding[] => {
      if (u.total <= RISK) return [];
      const option = c.netlist.instance(u.ref)?.part.options.find((o) => o.key === "baud");
      const board = c.netlist.instance(u.host)!.part.board!;
      const chip = c.netlist.instance(u.host)!.part.options.find((o) => o.key === "clock_Hz");
      const crystal = chip?.kind === "choice" ? chip.choices.find((x) => /crystal/.test(x.label)) : undefined;
      const slower =
        option?.kind === "choice" ? option.choices.filter((x) => Number(x.value) < u.baud).at(-1) : undefined;
      return [
        {
          rule: "uart.baud",
          severity: u.console ? "note" : u.total > FAULT ? "fault" : "risk",
          at: [u.ref, u.host],
          message: `${u.baud} baud for ${label(c, u.ref)} is ${u.real.real.toFixed(0)} on the ${board.chip} (${u.real.how}): ${pct(Math.abs(u.real.error))} off${board.clockTolerance ? `, and its clock may be ${pct(board.clockTolerance)} off besides${crystal && board.clockTolerance > 0.001 ? " (the chip's own oscillator: usually this good near 25 °C, promised only to 10 %)" : ""}` : ""}.`,
          evidence: {
            asked: u.baud,
            real: round(u.real.real, 0),
            error_pct: round(u.real.error * 100, 2),
            worst_pct: round(u.total * 100, 2),
          },
          fixes: [
            ...(slower && Math.abs(u.real.error) > RISK / 2
              ? [
                  {
                    id: "slower",
                    label: `Set ${label(c, u.ref)} to ${slower.value} baud`,
                    edits: [{ type: "setOption" as const, ref: u.ref, key: "baud", value: slower.value }],
                  },
                ]
              : []),
            ...(crystal && board.clockTolerance && board.clockTolerance > 0.001
              ? [
                  {
                    id: "crystal",
                    label: `Give ${label(c, u.host)} a crystal: ${crystal.label}`,
                    edits: [{ type: "setOption" as const, ref: u.host, key: "clock_Hz", value: crystal.value }],
                  },
                ]
              : []),
          ],
        },
      ];
    }),
};

export const serialRules: Rule[] = [held, shared, clock, mode, ownSelect, notCrossed, oneEach, baud];
