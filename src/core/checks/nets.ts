import { openPins, recommendedCompanions } from "../plan/assign";
import type { Circuit } from "../circuit";
import type { Binding } from "../circuit/netlist";
import { restOf } from "../circuit/solve";
import { splitEnd, type CompanionValue } from "../project";
import { formatOhm } from "../quantity";
import { decidingNet, elementsAt, isRail, netById, otherEnd } from "./graph";
import { freePin, isTwoWay, label, linkedRefs, owner } from "./help";
import type { Finding, Fix, Rule } from "./types";

/**
 * Whether an open input belongs to a half of its part that nobody uses: the receive line of something that is only listened
 * to, or an input whose outputs, by their number, lead nowhere while others are in use.
 */
function isSpare(c: Circuit, ref: string, pin: string): boolean {
  const inst = c.netlist.instance(ref)!;
  const def = inst.part.pins.find((p) => p.label === pin);
  const used = (label: string) => c.netlist.netOf(`${ref}.${label}`).ends.length > 1;
  const serial = inst.part.groups.find((g) => g.kind === "uart" && Object.values(g.pins).includes(pin));
  if (serial) return Object.values(serial.pins).some((p) => p !== pin && used(p));
  if (def?.need?.kind === "uart")
    return inst.part.pins.some((p) => p.label !== pin && p.need?.kind === "uart" && used(p.label));
  const number = /(\d+)$/.exec(pin)?.[1];
  const outputs = inst.part.pins.filter((p) => p.label !== pin && (p.io === "out" || p.role === "passive"));
  const mine = outputs.filter((p) => number !== undefined && new RegExp(`^[A-Za-z+-]*${number}$`).test(p.label));
  return mine.length > 0 && !mine.some((p) => used(p.label)) && outputs.some((p) => used(p.label));
}

const undriven: Rule = {
  rule: "net.undriven",
  says: "A net of inputs only has nobody who sets its level.",
  check: (c) =>
    c.netlist.nets.flatMap((n): Finding[] => {
      if (n.kind === "supply" || n.kind === "ground") return [];
      const inputs = n.ends.filter((e) => e.as === "receiver");
      if (!inputs.length || n.ends.some((e) => e.as === "driver" || e.as === "both")) return [];
      // Something passive may bring a level, but not a resistor whose other end is free.
      const leads = (ref: string) =>
        elementsAt(c, n.id).some((el) => {
          const far = el.ref === ref ? netById(c, otherEnd(el, n.id)) : undefined;
          return far !== undefined && (far.nodes.length > 0 || far.ends.length > 1);
        });
      if (n.ends.some((e) => e.as === "passive" && leads(e.ref))) return [];
      const first = inputs.find((e) => e.def.need) ?? inputs[0]!;
      const inst = c.netlist.instance(first.ref)!;
      const alone = n.ends.filter((e) => !c.netlist.instance(e.ref)?.inserted).length < 2;
      const wired = linkedRefs(c.project).has(first.ref);
      if (alone && (!wired || !first.def.need || first.def.need.optional || inst.part.board)) return [];
      const spare = alone && inputs.length === 1 && isSpare(c, first.ref, first.pin);
      const host = inst.host;
      const pin = host && first.def.need ? freePin(c, host, first.def.need) : null;
      const fixes: Fix[] =
        host && pin
          ? [
              {
                id: "drive",
                label: `Wire ${first.ref}.${first.pin} to ${host}.${pin}`,
                edits: [{ type: "addLink", link: { from: `${first.ref}.${first.pin}`, to: `${host}.${pin}` } }],
              },
            ]
          : [];
      return [
        {
          rule: "net.undriven",
          severity: spare ? "note" : "fault",
          at: inputs.map((e) => `${e.ref}.${e.pin}`),
          message: spare
            ? `${first.ref}.${first.pin} (${label(c, first.ref)}) is an input that nothing drives; as the part is used here it is not needed.`
            : alone
              ? `${first.ref}.${first.pin} (${label(c, first.ref)}) is an input that nothing drives.`
              : inputs.length === 1
                ? `${first.ref}.${first.pin} (${label(c, first.ref)}) is an input: nothing on this net sets its level.`
                : `${inputs.map((e) => `${e.ref}.${e.pin}`).join(", ")} are all inputs: nothing on this net sets their level.`,
          evidence: { inputs: inputs.length },
          fixes,
        },
      ];
    }),
};

const contention: Rule = {
  rule: "net.contention",
  says: "Two outputs on one net fight: one pulls up while the other pulls down.",
  check: (c) =>
    c.netlist.nets.flatMap((n): Finding[] => {
      // SPI parts take turns on their data line; `spi.miso-held` speaks for those that do not let go.
      // A gate that a signal opens and closes lets go as well.
      const turns = (ref: string, pin: string) => {
        const part = c.netlist.instance(ref)?.part;
        const gate = part?.channels.find((x) => x.out === pin)?.enable;
        const opened = gate !== undefined && !isRail(c.netlist.netOf(`${ref}.${gate}`));
        return opened || (part?.groups.some((g) => g.kind === "spi" && g.pins.miso === pin) ?? false);
      };
      const drivers = n.ends
        .filter((e) => e.as === "driver" && c.netlist.level(e.ref, e.pin)?.output === "push-pull")
        .filter((e, _i, all) => !turns(e.ref, e.pin) || !all.every((x) => turns(x.ref, x.pin)));
      const host = drivers.filter((e) => e.def.offers).map((e) => `${e.ref}.${e.pin}`);
      const used = c.netlist.bindings.filter((b) => host.includes(`${b.host}.${b.hostPin}`)).length;
      if (drivers.length < 2 || used > 1) return [];
      return [
        {
          rule: "net.contention",
          severity: "stop",
          at: drivers.map((e) => `${e.ref}.${e.pin}`),
          message: `${drivers.map((e) => `${e.ref}.${e.pin}`).join(" and ")} are outputs on one net and would fight. Do not power this.`,
          evidence: { outputs: drivers.length },
          fixes: c.project.links
            .filter((l) => drivers.some((e) => l.from === `${e.ref}.${e.pin}` || l.to === `${e.ref}.${e.pin}`))
            .slice(-1)
            .map((l) => ({
              id: "remove-wire",
              label: `Take out the wire from ${l.from} to ${l.to}`,
              edits: [{ type: "removeLink", from: l.from, to: l.to }],
            })),
        },
      ];
    }),
};

const pullWords = (v: CompanionValue) =>
  v === "internal"
    ? "Use the chip's own pull-up"
    : `Add a ${typeof v?.ohm === "number" ? formatOhm(v.ohm) : ""} pull resistor`;

const floating: Rule = {
  rule: "net.floating",
  says: "An open contact, or an output that can only pull low, gives no high by itself: a pull must hold the pin.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Finding[] => {
      if (!["digital-in", "digital-io", "interrupt"].includes(b.need.kind) || b.chainedAfter) return [];
      const net = c.netlist.netOf(`${b.ref}.${b.pin}`);
      const opens = elementsAt(c, net.id).some((e) => e.ref === b.ref && e.kind === "contact");
      const drain = c.netlist.level(b.ref, b.pin)?.output === "open-drain";
      if (!opens && !drain) return [];
      if (restOf(c.solved, net.id, { internal: true })) return [];
      const entry = c.project.parts.find((p) => p.ref === b.ref);
      const { pullUp: _u, pullDown: _d, ...others } = entry?.companions ?? {};
      const values = entry
        ? recommendedCompanions(c.project, { ...entry, companions: others }, c.catalogue, b.host)
        : {};
      const key = values.pullDown !== undefined ? "pullDown" : "pullUp";
      return [
        {
          rule: "net.floating",
          severity: "risk",
          at: [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`],
          message: opens
            ? `While ${label(c, b.ref)} is open, nothing holds ${b.host}.${b.hostPin}: it reads at random.`
            : `${label(c, b.ref)} can only pull ${b.host}.${b.hostPin} low: without a pull-up it never reads high.`,
          evidence: { contact: b.ref },
          fixes:
            values[key] !== undefined
              ? [
                  {
                    id: "pull",
                    label: pullWords(values[key]!),
                    edits: [{ type: "setCompanion", ref: b.ref, key, value: values[key] }],
                  },
                ]
              : [],
        },
      ];
    }),
};

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

const oneWay: Rule = {
  rule: "net.one-way",
  says: "A line that both ends use in turn can't pass a buffer or an isolator that carries signals in one direction.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Finding[] => {
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
          fixes: bothWaysFix(c, b, ref),
        },
      ];
    }),
};

const unwired: Rule = {
  rule: "part.unwired",
  says: "A part in the list that no wire reaches yet.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Finding[] => {
      if (inst.inserted || inst.part.board || inst.part.id.startsWith("supply/") || inst.part.pins.length < 2)
        return [];
      if (linkedRefs(c.project).has(inst.ref)) return [];
      const open = openPins(c.project, c.netlist, inst).length;
      return [
        {
          rule: "part.unwired",
          severity: "note",
          at: [inst.ref],
          message: `${label(c, inst.ref)} is in the list but not planned yet${open ? `: ${open} pins to plan` : ""}.`,
          evidence: { open },
          fixes: [],
        },
      ];
    }),
};

const dataMissing: Rule = {
  rule: "part.data-missing",
  says: "Without a part's input thresholds nobody can say whether a signal reaches them.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Finding[] => {
      const silent = inst.part.pins.filter((p) => {
        const l = p.level ? inst.part.levels[p.level] : undefined;
        const listens = p.io === "in" || p.io === "bidir" || p.io === "open-drain";
        const silent = listens && l?.VIH === undefined && (l?.input === "cmos" || l?.input === "ttl");
        return silent && c.netlist.bindings.some((b) => b.ref === inst.ref && b.pin === p.label);
      });
      if (!silent.length) return [];
      return [
        {
          rule: "part.data-missing",
          severity: "note",
          at: silent.map((p) => `${inst.ref}.${p.label}`),
          message: `The data of ${label(c, inst.ref)} gives no thresholds (VIH, VIL) for ${silent.map((p) => p.label).join(", ")}: whether the board's levels reach them is not judged.`,
          evidence: { pins: silent.length },
          fixes: [],
        },
      ];
    }),
};

const notPlanned: Rule = {
  rule: "companion.not-planned",
  says: "A loose part that the project asks for and that could not be placed.",
  check: (c) =>
    c.netlist.expanded.unplaced.map(({ ref, key }): Finding => ({
      rule: "companion.not-planned",
      severity: "risk",
      at: [ref],
      message: `${label(c, ref)} asks for "${key}", which can't be placed with the values given; it is not in the wiring.`,
      evidence: { key },
      fixes: [{ id: "drop", label: `Take "${key}" out again`, edits: [{ type: "setCompanion", ref, key }] }],
    })),
};

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

const floatingAtReset: Rule = {
  rule: "net.floating-at-reset",
  says: "From power-on until the program sets it, a board's pin is an open input: gates, enables and selects must be held meanwhile.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst) =>
      inst.part.pins.flatMap((p): Finding[] => {
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
            fixes: holdFix(c, by ?? `${inst.ref}.${p.label}`, key),
          },
        ];
      }),
    ),
};

/** A wire whose far end nothing listens to and nothing comes from. */
const dangling: Rule = {
  rule: "net.dangling",
  says: "A wire that leads nowhere does nothing, and picks up noise.",
  check: (c) =>
    c.project.links.flatMap((l): Finding[] => {
      const net = c.netlist.netOf(l.from);
      if (!net || net.kind === "supply" || net.kind === "ground") return [];
      const works = (e: (typeof net.ends)[number]) =>
        ["driver", "receiver", "both", "source", "sink", "ground"].includes(e.as);
      if (net.ends.some((e) => works(e) || e.def.role === "cable" || e.def.need)) return [];
      const through = elementsAt(c, net.id);
      const leads = through.filter((el) => {
        const far = netById(c, otherEnd(el, net.id));
        return far && far !== net && (isRail(far) || far.ends.length > 1 || elementsAt(c, far.id).length > 1);
      });
      if (leads.length) return [];
      if (net.ends.some((e) => c.netlist.instance(e.ref)?.part.id.startsWith("connector/"))) return [];
      return [
        {
          rule: "net.dangling",
          severity: "note",
          at: [l.from, l.to],
          message: `The wire from ${l.from} to ${l.to} leads nowhere: nothing drives it and nothing listens.`,
          evidence: { net: net.name },
          fixes: [
            { id: "remove-wire", label: "Take the wire out", edits: [{ type: "removeLink", from: l.from, to: l.to }] },
          ],
        },
      ];
    }),
};

export const netRules: Rule[] = [
  undriven,
  contention,
  oneWay,
  floating,
  floatingAtReset,
  dangling,
  unwired,
  dataMissing,
  notPlanned,
];
