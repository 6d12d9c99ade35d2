import type { Circuit } from "../circuit";
import { PAIRS } from "../circuit/netlist";
import { restOf } from "../circuit/solve";
import { evaluate, formatOhm, formatV } from "../quantity";
import { elementsAt, isRail, netById, otherEnd } from "./graph";
import { label, owner, round } from "./help";
import { logicSupplyFix } from "./supply-fixes";
import type { Finding, Fix, Rule } from "./types";

/** The volts at which a host's converter reads full. */
function fullScale(c: Circuit, host: string): number {
  const inst = c.netlist.instance(host)!;
  const analog = inst.part.board?.analog;
  const rail = c.netlist.netOf(`${host}:${inst.part.board?.logicSupply ?? ""}`)?.V?.typ ?? 5;
  return analog ? Math.min(evaluate(analog.full_V.typ), rail) : rail;
}

/** Slack of a reference: it is no better known than this. */
const REF_SLACK = 1.1;

const adcRange: Rule = {
  rule: "adc.range",
  says: "A converter reads full at its reference: what is above it can't be told apart.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Finding[] => {
      const board = c.netlist.instance(b.host)?.part.board;
      if (b.need.kind !== "adc" || !board) return [];
      const full = fullScale(c, b.host);
      // What the part can put out: its level's top, or the rails that its divider or wiper hangs between.
      const v = c.levels.find((x) => x.receiver.ref === b.host && x.receiver.pin === b.hostPin);
      const net = c.netlist.netOf(`${b.host}.${b.hostPin}`);
      // At its brightest, hottest or uppermost, but never above the usual rail that it comes from.
      const seen = c.solved.volts.get(net.id);
      const rail = seen?.from.end.kind === "rail" ? seen.from.end.net.V?.typ : undefined;
      const above = Math.min(seen?.high.worst ?? 0, rail ?? Infinity);
      const top = v ? Math.min(v.highest_V, v.driver.V.typ) : above;
      if (v && v.highest_V > v.ceiling + 1e-9) return [];
      if (top <= full * REF_SLACK) return [];
      const share = Math.round((1 - full / top) * 100);
      return [
        {
          rule: "adc.range",
          severity: "risk",
          at: [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`],
          message: `${label(c, b.ref)} gives up to ${formatV(top)}; ${label(c, b.host)} reads full at ${formatV(full)}: the upper ${share} % all read the same.`,
          evidence: { top_V: round(top), full_V: round(full) },
          fixes: [...logicSupplyFix(c, b.ref)],
        },
      ];
    }),
};

/** A capacitor of this size at the pin feeds the sampling switch instead of the source. */
const FEEDS_F = 10e-9;

const ADVISED_OHM = 10_000;

const impedance: Rule = {
  rule: "adc.impedance",
  says: "A converter takes a sip of charge with every sample: a source of high resistance can't refill it in time.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Finding[] => {
      const board = c.netlist.instance(b.host)?.part.board;
      if (b.need.kind !== "adc" || !board) return [];
      const net = c.netlist.netOf(`${b.host}.${b.hostPin}`);
      if (net.ends.some((e) => e.as === "driver")) return [];
      const held = elementsAt(c, net.id).some((e) => e.kind === "capacitor" && (e.F ?? 0) >= FEEDS_F);
      const most = board.analog?.source_ohm ?? ADVISED_OHM;
      // What the converter looks back into, worst at a wiper's middle.
      const ohm = restOf(c.solved, net.id)?.ohm ?? 0;
      if (held || ohm <= most * 1.001) return [];
      return [
        {
          rule: "adc.impedance",
          severity: "risk",
          at: [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`],
          message: `${b.host}.${b.hostPin} looks into ${formatOhm(ohm)}; its converter wants ${formatOhm(most)} or less. Readings lag and hang on the channel read before.`,
          evidence: { source_ohm: round(ohm, 0), advised_ohm: most },
          fixes: c.project.parts.some((p) => p.ref === owner(c, b.ref))
            ? [
                {
                  id: "capacitor",
                  label: "Put 100 nF from the pin to ground",
                  edits: [
                    { type: "setCompanion", ref: owner(c, b.ref), key: "filter", value: { F: 1e-7, pin: b.pin } },
                  ],
                },
              ]
            : [],
        },
      ];
    }),
};

/** The resistor that the other side lacks: the value that the part's data asks for, else 10 kΩ. */
function partnerFix(c: Circuit, ref: string, up: boolean): Fix[] {
  const inst = c.netlist.instance(ref)!;
  if (!c.project.parts.some((p) => p.ref === ref)) return [];
  const rule = inst.part.companions.find((x) => x.place === "pull");
  const ohm = evaluate(rule?.ohm ?? 10_000, inst.vars);
  return [
    {
      id: "partner",
      label: `Put ${formatOhm(ohm)} from the pin to ${up ? "ground" : "the supply"}`,
      edits: [{ type: "setCompanion", ref, key: up ? "pullDown" : "pullUp", value: { ohm } }],
    },
  ];
}

/** A net this close to a rail stands on it, volts. */
const ON_RAIL_V = 0.01;

const oneSided: Rule = {
  rule: "adc.one-sided",
  says: "A converter measures volts: a resistance becomes a voltage only between two resistors, one to each side.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Finding[] => {
      const inst = c.netlist.instance(b.ref)!;
      const net = c.netlist.netOf(`${b.ref}.${b.pin}`);
      const own = elementsAt(c, net.id).some((e) => e.kind === "resistor" && e.ref === b.ref);
      if (b.need.kind !== "adc" || !own || inst.part.supplies.main || net.ends.some((e) => e.as === "driver"))
        return [];
      const rest = restOf(c.solved, net.id, { internal: true });
      const rail = rest?.way.end.kind === "rail" ? rest.way.end.net : undefined;
      // Between two resistors it stands off both rails; hung on one, it is that rail.
      if (!rest || !rail || Math.abs(rest.V - (rail.V?.typ ?? 0)) > ON_RAIL_V) return [];
      const up = rail.kind === "supply";
      return [
        {
          rule: "adc.one-sided",
          severity: "fault",
          at: [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`],
          message: `${label(c, b.ref)} only leads ${b.host}.${b.hostPin} to ${up ? "the supply" : "ground"}: whatever its resistance, it reads ${up ? "full" : "zero"}. It wants a resistor to ${up ? "ground" : "the supply"} beside it.`,
          evidence: { reads: up ? "full" : "zero" },
          fixes: partnerFix(c, b.ref, up),
        },
      ];
    }),
};

/** Four contacts at the corners of two rows and two columns: three pressed keys make the fourth. */
const ghosting: Rule = {
  rule: "matrix.ghosting",
  says: "In a grid of contacts without diodes three pressed keys look like a fourth.",
  check: (c) => {
    const contacts = c.netlist.elements.filter((e) => {
      if (e.kind !== "contact") return false;
      const [a, b] = [netById(c, e.a), netById(c, e.b)];
      return a && b && a !== b && !isRail(a) && !isRail(b);
    });
    const at = new Map<string, Set<string>>();
    for (const e of contacts)
      for (const [x, y] of [
        [e.a, e.b],
        [e.b, e.a],
      ] as const)
        at.set(x, (at.get(x) ?? new Set()).add(y));
    const nets = [...at.keys()];
    for (const [i, a] of nets.entries())
      for (const b of nets.slice(i + 1)) {
        const both = [...at.get(a)!].filter((x) => at.get(b)!.has(x));
        if (both.length < 2) continue;
        const square = contacts.filter(
          (e) => [a, b].some((x) => e.a === x || e.b === x) && both.some((x) => e.a === x || e.b === x),
        );
        const refs = [...new Set(square.map((e) => owner(c, e.ref)))];
        // One keypad is pressed key by key; separate switches stay closed together.
        const keypad = refs.length === 1;
        return [
          {
            rule: "matrix.ghosting",
            severity: keypad ? "note" : "risk",
            at: refs,
            message: keypad
              ? `${label(c, refs[0]!)} has no diodes: two keys at once are told apart, three may show a fourth.`
              : `${refs.map((r) => label(c, r)).join(", ")} form a grid without diodes: with three of them closed the fourth reads as closed too.`,
            evidence: { contacts: square.length },
            fixes: [],
          },
        ];
      }
    return [];
  },
};

const PAIR_OHM: Record<string, number> = { CANH: 120, A: 120 };

const termination: Rule = {
  rule: "bus.termination",
  says: "A differential pair wants its own resistance at both ends of the cable, 120 Ω each, and nowhere else.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Finding[] => {
      const pair = PAIRS.find((p) => p.every((l) => inst.part.pins.some((x) => x.label === l && x.role === "passive")));
      const entry = c.project.parts.find((p) => p.ref === inst.ref);
      if (!pair || !entry || entry.companions?.termination !== undefined) return [];
      const [a, b] = pair.map((l) => c.netlist.netOf(`${inst.ref}.${l}`));
      if (!a || !b || a.ends.length < 2) return [];
      const there = elementsAt(c, a.id).some((e) => e.kind === "resistor" && otherEnd(e, a.id) === b.id);
      if (there) return [];
      const ohm = PAIR_OHM[pair[0]] ?? 120;
      const fixes: Fix[] = [
        {
          id: "terminate",
          label: `This is an end of the cable: put ${ohm} Ω across`,
          edits: [{ type: "setCompanion", ref: inst.ref, key: "termination", value: { ohm } }],
        },
        {
          id: "not-an-end",
          label: "It is no end, or the module brings its own: none here",
          edits: [{ type: "setCompanion", ref: inst.ref, key: "termination", value: null }],
        },
      ];
      return [
        {
          rule: "bus.termination",
          severity: "note",
          at: [`${inst.ref}.${pair[0]}`, `${inst.ref}.${pair[1]}`],
          message: `If ${label(c, inst.ref)} is an end of the cable, it wants ${ohm} Ω between ${pair[0]} and ${pair[1]}; many modules bring it with a jumper.`,
          evidence: { R_ohm: ohm },
          fixes,
        },
      ];
    }),
};

/** A light chain's data line: the first piece wants a few hundred ohms in it. */
const dataResistor: Rule = {
  rule: "led.data-resistor",
  says: "300 to 500 Ω in the wire to the first data-in keep the sharp edges from ringing and the strip's input alive.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Finding[] => {
      const inst = c.netlist.instance(b.ref)!;
      const rule = inst.part.companions.find(
        (x) => x.key === "seriesResistor" && x.pin === b.pin && x.needed === "recommended",
      );
      const entry = c.project.parts.find((p) => p.ref === b.ref);
      if (!rule || !entry || b.chainedAfter || !b.direct || entry.companions?.seriesResistor === null) return [];
      if (!inst.part.groups.some((g) => g.kind === "chain")) return [];
      const ohm = evaluate(rule.ohm ?? 330, inst.vars);
      return [
        {
          rule: "led.data-resistor",
          severity: "note",
          at: [`${b.ref}.${b.pin}`],
          message: `The data wire into ${label(c, b.ref)} has no resistor: ${rule.because}.`,
          evidence: { wanted_ohm: ohm },
          fixes: [
            {
              id: "series-resistor",
              label: `Put ${ohm} Ω in the data wire`,
              edits: [{ type: "setCompanion", ref: b.ref, key: "seriesResistor", value: { ohm } }],
            },
          ],
        },
      ];
    }),
};

export const inputRules: Rule[] = [adcRange, oneSided, impedance, ghosting, termination, dataResistor];
