import type { Circuit } from "../../circuit";
import type { Binding, Net } from "../../circuit/netlist";
import { restOf } from "../../circuit/solve";
import { evaluate, formatOhm } from "../../quantity";
import { elementsAt } from "../graph";
import { label, owner, round } from "../help";
import type { Fix, Found, Rest, Rule } from "../types";

/** A capacitor of this size at the pin feeds the sampling switch instead of the source. */
const FEEDS_F = 10e-9;

const ADVISED_OHM = 10_000;

/** A closed switch between the source and the converter: what it puts in the way, ohms, and the converter's own binding. */
interface Switch {
  ref: string;
  ohm: number;
  to: Binding;
  rests: Rest;
}

/** The analogue switch that a source's wire ends at, where its data name what it puts in the way. */
function switchOf(c: Circuit, b: Binding): Switch | null {
  const inst = c.netlist.instance(b.host);
  const i = inst?.part.channels.findIndex((x) => x.in === b.hostPin && x.ohm !== undefined) ?? -1;
  if (!inst || i < 0) return null;
  const channel = inst.part.channels[i]!;
  const to = c.netlist.bindings.find((x) => x.ref === b.host && x.pin === channel.out && x.need.kind === "adc");
  const supply = inst.part.pins.find((p) => p.role === "supply-in");
  const V = supply && c.netlist.netOf(`${b.host}.${supply.label}`).V?.min;
  if (!to || V === undefined) return null;
  return {
    ref: b.host,
    ohm: evaluate(channel.ohm!, { ...inst.vars, V }),
    to,
    rests: { ref: b.host, path: `channels/${i}/ohm`, called: `the resistance of a closed switch of ${b.host}` },
  };
}

const isHeld = (c: Circuit, net: Net) =>
  elementsAt(c, net.id).some((e) => e.kind === "capacitor" && (e.F ?? 0) >= FEEDS_F);

function capacitorFix(c: Circuit, b: Binding): Fix[] {
  if (!c.project.parts.some((p) => p.ref === owner(c, b.ref))) return [];
  return [
    {
      id: "capacitor",
      label: "Put 100 nF from the pin to ground",
      edits: [{ type: "setCompanion", ref: owner(c, b.ref), key: "filter", value: { F: 1e-7, pin: b.pin } }],
    },
  ];
}

export const adcImpedance: Rule = {
  rule: "adc.impedance",
  says: "A converter takes a sip of charge with every sample: a source of high resistance can't refill it in time.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      const through = switchOf(c, b);
      const at = through?.to ?? b;
      const board = c.netlist.instance(at.host)?.part.board;
      if (b.need.kind !== "adc" || !board) return [];
      const net = c.netlist.netOf(`${b.host}.${b.hostPin}`);
      if (net.ends.some((e) => e.as === "driver")) return [];
      const held = isHeld(c, net);
      if (held && !through) return [];
      const most = board.analog?.source_ohm ?? ADVISED_OHM;
      // What the converter looks back into, worst at a wiper's middle.
      const source = held ? 0 : (restOf(c.solved, net.id)?.ohm ?? 0);
      const ohm = source + (through?.ohm ?? 0);
      if (ohm <= most * 1.001) return [];
      const by = through ? ` through a switch of ${label(c, through.ref)} (${formatOhm(through.ohm)} of it)` : "";
      return [
        {
          rule: "adc.impedance",
          severity: "risk",
          at: [`${b.ref}.${b.pin}`, `${at.host}.${at.hostPin}`],
          message: `${at.host}.${at.hostPin} looks into ${formatOhm(ohm)}${by}; its converter wants ${formatOhm(most)} or less. Readings lag and hang on the channel read before.`,
          evidence: {
            source_ohm: round(ohm, 0),
            ...(through && { switch_ohm: round(through.ohm, 0) }),
            advised_ohm: most,
          },
          ...(through && { rests: [through.rests] }),
          // A capacitor only helps against what lies before it.
          fixes: held || (through && through.ohm > most) ? [] : capacitorFix(c, b),
        },
      ];
    }),
};
