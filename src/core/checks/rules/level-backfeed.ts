import type { Circuit } from "../../circuit";
import { rootOf } from "../../circuit/power";
import { CLAMP_V, clampsToSupply, INJECTION_MA } from "../../circuit/netlist";
import { whileOff, type IntoDead, type LevelVerdict } from "../../circuit/solve";
import { formatV, nextUp } from "../../quantity";
import { elementsAt, netById, otherEnd } from "../graph";
import { label, owner, round } from "../help";
import type { Found, Rule } from "../types";
import { at, pinOf, needPart } from "../level-pairs";

/** A pin that stands the signal only while its own part is powered. */
const overWhileOff = (c: Circuit, { v, dead }: Pick<Backfeed, "v" | "dead">) => {
  const off = c.netlist.level(v.receiver.ref, v.receiver.pin)?.absMax_off;
  return off !== undefined && dead.V.worst > off;
};

const groundNet = (c: Circuit, ref: string) => {
  const ground = c.netlist.instance(ref)?.part.pins.find((p) => p.role === "ground");
  return ground && c.netlist.netOf(`${ref}.${ground.label}`);
};
/** Without a common ground nothing flows: `power.ground-not-common` speaks first. */
const shareGround = (c: Circuit, v: LevelVerdict) => {
  const [a, b] = [groundNet(c, v.driver.ref), groundNet(c, v.receiver.ref)];
  return a === undefined || b === undefined || a === b;
};

/** Two things plugged into USB come and go together, and of a connector's far side little is known: worth knowing only. */
const together = (c: Circuit, v: LevelVerdict) => {
  const usb = (id: string) => rootOf(c.netlist, c.power, id)?.source.inst.part.pins.some((p) => p.role === "cable");
  const far = [v.driver, v.receiver].some((x) => c.netlist.instance(x.ref)?.part.id.startsWith("connector/"));
  return far || (usb(v.driver.supplyNet) && usb(v.receiver.supplyNet));
};

/** A signal from one supply to a part on another: what flows while that other one is off, and what its input stands. */
export interface Backfeed {
  v: LevelVerdict;
  /** The sources of the driver and of the receiver. */
  from: string;
  into: string;
  dead: IntoDead;
  into_mA: number;
  limit_mA: number;
}

const backfeedMemo = new WeakMap<Circuit["netlist"], Backfeed[]>();

/** Less than this into a dead input is nothing to tell, amperes. */
const WORTH_A = 1e-4;

/** The source that lifts a pair's line: the driver's, or that of a pull. */
function liftedBy(c: Circuit, v: LevelVerdict, root: (id: string) => string | undefined): string | undefined {
  const into = root(v.receiver.supplyNet);
  if (v.driver.how !== "pull-up") return root(v.driver.supplyNet);
  return [v.receiver.net, v.driver.net]
    .flatMap((id) => elementsAt(c, id).map((e) => (e.kind === "resistor" ? otherEnd(e, id) : "")))
    .flatMap((id) => (netById(c, id)?.kind === "supply" ? (root(id) ?? []) : []))
    .find((x) => x !== into);
}

/** Every signal that crosses from one source into a part of another and meets a clamp there; one a receiver pin. */
export function backfeeds(c: Circuit): Backfeed[] {
  const known = backfeedMemo.get(c.netlist);
  if (known) return known;
  const roots = new Map<string, string | undefined>();
  const root = (id: string) => {
    if (!roots.has(id)) roots.set(id, rootOf(c.netlist, c.power, id)?.source.ref);
    return roots.get(id);
  };
  const sources = new Set(c.netlist.nets.flatMap((n) => (n.kind === "supply" ? (root(n.id) ?? []) : [])));
  const out = new Map<string, Backfeed>();
  for (const v of sources.size < 2 ? [] : c.levels) {
    const level = c.netlist.level(v.receiver.ref, v.receiver.pin);
    if (!clampsToSupply(level) && level?.absMax_off === undefined) continue;
    const [from, into] = [liftedBy(c, v, root), root(v.receiver.supplyNet)];
    if (from === undefined || into === undefined || from === into || !shareGround(c, v)) continue;
    const dead = whileOff(c.netlist, c.solved, root, v);
    if (!dead || (dead.A.worst < WORTH_A && !overWhileOff(c, { v, dead }))) continue;
    const seen = out.get(pinOf(v.receiver));
    if (seen && (seen.dead.A.worst > dead.A.worst || seen.dead.V.worst >= dead.V.worst)) continue;
    const limit_mA = level?.injection_mA ?? INJECTION_MA;
    out.set(pinOf(v.receiver), { v, from, into, dead, into_mA: dead.A.worst * 1000, limit_mA });
  }
  const list = [...out.values()];
  backfeedMemo.set(c.netlist, list);
  return list;
}

export const backfeed: Rule = {
  rule: "level.backfeed",
  says: "A signal into a part whose own supply is off feeds that part through its input: it half works, or its input dies.",
  check: (c) => {
    const over = backfeeds(c).filter((x) => x.into_mA > x.limit_mA || overWhileOff(c, x));
    /** The pins of a part that the same fix is for. */
    const all = (ref: string) =>
      over.flatMap(({ v }) => [v.receiver, v.driver]).flatMap((x) => (x.ref === ref ? [x.pin] : []));
    return over.map((x): Found => {
      const { v, into_mA, limit_mA, dead } = x;
      const b = needPart(c, v);
      const entry = b && c.project.parts.find((p) => p.ref === b.ref);
      const least = ((v.driver.V.max - CLAMP_V) / limit_mA) * 1000 * 1.1;
      const ohm = nextUp(least, "E12", c.project.drawer.resistors_ohm);
      return {
        rule: "level.backfeed",
        severity: together(c, v) ? "note" : "risk",
        at: at(v),
        message: overWhileOff(c, x)
          ? `${label(c, owner(c, v.receiver.ref))} has a supply of its own. While that is off, ${pinOf(v.driver)} puts up to ${formatV(dead.V.worst)} on ${pinOf(v.receiver)}, which stands ${formatV(c.netlist.level(v.receiver.ref, v.receiver.pin)!.absMax_off!)} then, and more only while it is powered. Feed both from one source, or divide the signal.`
          : `${label(c, owner(c, v.receiver.ref))} has a supply of its own. While that is off, ${pinOf(v.driver)} feeds up to ${into_mA.toFixed(0)} mA into ${pinOf(v.receiver)}; ${limit_mA} mA is what an input stands. Switch both on together, or put a resistor in the wire.`,
        evidence: { into_mA: round(into_mA, 0), limit_mA, pin_V: round(dead.V.worst) },
        fixes:
          b && entry && !entry.companions?.seriesResistor && !overWhileOff(c, x)
            ? [
                {
                  id: "series-resistor",
                  label: `Put ${ohm} Ω in ${all(b.ref).length > 1 ? "each signal wire" : "the wire"} to ${label(c, b.ref)}: ${all(b.ref).join(", ")}`,
                  edits: [
                    { type: "setCompanion", ref: b.ref, key: "seriesResistor", value: { ohm, pins: all(b.ref) } },
                  ],
                },
              ]
            : [],
      };
    });
  },
};
