import type { Circuit } from "../circuit";
import { chooseDivider } from "../circuit/formulas";
import { rootOf } from "../circuit/power";
import { formatV, nextUp, type Triple } from "../quantity";
import { CLAMP_V, clampsToSupply, INJECTION_MA } from "../circuit/netlist";
import { whileOff, type IntoDead, type LevelVerdict } from "../circuit/solve";
import { houseRule } from "../project";
import { elementsAt, netById, otherEnd } from "./graph";
import { isTwoWay, label, moveFix, owner, round } from "./help";
import { logicSupplyFix } from "./supply-fixes";
import { translatorFix } from "./translators";
import { twoWayFix } from "./two-way";
import type { Finding, Fix, Rule } from "./types";

export const THIN_MARGIN_V = 0.2;

const at = (v: LevelVerdict) => [`${v.driver.ref}.${v.driver.pin}`, `${v.receiver.ref}.${v.receiver.pin}`];
const pinOf = (x: { ref: string; pin: string }) => `${x.ref}.${x.pin}`;

const evidence = (v: LevelVerdict) => ({
  high_V: round(v.high_V),
  VIH_V: round(v.VIH),
  marginHigh_V: round(v.marginHigh),
  low_V: round(v.low_V),
  VIL_V: round(v.VIL),
  marginLow_V: round(v.marginLow),
  highest_V: round(v.highest_V),
  ceiling_V: round(v.ceiling),
});

/** The need that runs over this pair: its part is the one that a companion can be added to. */
function needPart(c: Circuit, v: LevelVerdict) {
  const ends = [pinOf(v.driver), pinOf(v.receiver)];
  const refs = [owner(c, v.driver.ref), owner(c, v.receiver.ref)];
  return c.netlist.bindings.find(
    (b) => refs.includes(b.ref) && (ends.includes(`${b.ref}.${b.pin}`) || ends.includes(`${b.host}.${b.hostPin}`)),
  );
}

/** Verdicts of the same kind at other pins of the same part: what is mended at one is mended at all of them. */
const alike = (c: Circuit, v: LevelVerdict, ref: string, bad: (x: LevelVerdict) => boolean) =>
  c.levels.filter((x) => bad(x) && [x.driver.ref, x.receiver.ref].includes(ref) && x.driver.how === v.driver.how);

const tooHigh = (v: LevelVerdict) => v.highest_V > v.ceiling + 1e-9;
const tooLow = (v: LevelVerdict) => v.marginHigh < THIN_MARGIN_V;

/** Shares of a converter's range that a divided signal should at least reach, the best first. */
const ANALOG_SHARES = [0.8, 0.7, 0.6, 0.5, 0];

function dividerFix(c: Circuit, v: LevelVerdict): Fix[] {
  const b = needPart(c, v);
  if (!b || b.ref !== v.driver.ref || v.driver.how !== "push-pull") return [];
  const driver: Triple = { min: v.driver.V.min - 0.5, typ: v.driver.V.typ, max: v.driver.V.max };
  const same = alike(c, v, b.ref, (x) => tooHigh(x) && x.driver.ref === b.ref);
  const ceiling = Math.min(...same.map((x) => x.ceiling));
  const least = Math.max(...same.map((x) => (x.analog ? 0 : x.VIH)));
  // What is measured has no threshold: as much of the range as the tolerances leave.
  const wishes = same.every((x) => x.analog) ? ANALOG_SHARES.map((f) => f * ceiling) : [least];
  const pick = wishes.map((VIH) => chooseDivider({ from: driver, VIH, ceiling })).find((x) => x !== null);
  if (!pick) return [];
  const ohm: [number, number] = [pick.top_ohm, pick.bottom_ohm];
  const before = c.project.parts.find((p) => p.ref === b.ref)?.companions?.divider;
  const there = typeof before === "object" && before ? (before.pins ?? (before.pin ? [before.pin] : [])) : [];
  const pins = [...new Set([...there, b.pin, ...same.map((x) => x.driver.pin)])];
  return [
    {
      id: "divider",
      label: `Divide ${pins.map((p) => `${b.ref}.${p}`).join(", ")} with ${ohm[0]} Ω and ${ohm[1]} Ω${pins.length > 1 ? " each" : ""}: ${formatV(pick.out.min)} to ${formatV(pick.out.max)} arrive`,
      edits: [
        {
          type: "setCompanion",
          ref: b.ref,
          key: "divider",
          value: pins.length > 1 ? { ohm, pins } : { ohm, pin: pins[0]! },
        },
      ],
    },
  ];
}

const BUFFER = "module/buffer-74ahct125";

/** One wire gets a buffer of its own; where several wires of a part ask for one, a fix for all of them is made. */
function bufferFix(c: Circuit, v: LevelVerdict): Fix[] {
  const b = needPart(c, v);
  const V = v.receiver.V;
  const whole = () => translatorFix(c, v, THIN_MARGIN_V);
  if (!b || b.ref !== owner(c, v.receiver.ref) || v.driver.how !== "push-pull" || !c.catalogue.get(BUFFER))
    return whole();
  if (V.min < 4.5 || V.max > 5.5 || v.high_V < 2 || isTwoWay(b.need)) return whole();
  const others = alike(c, v, v.receiver.ref, (x) => tooLow(x) || tooHigh(x)).some(
    (x) => x.receiver.pin !== v.receiver.pin,
  );
  if (others || c.project.parts.find((p) => p.ref === b.ref)?.companions?.shifter) return whole();
  return [
    {
      id: "buffer",
      label: `Put a 74AHCT125 buffer in this wire, fed from ${label(c, b.ref)}'s supply`,
      edits: [{ type: "setCompanion", ref: b.ref, key: "shifter", value: { part: BUFFER, pin: b.pin } }],
    },
  ];
}

/** A transistor's gate is judged by its drive, not by thresholds: `load.gate-drive` speaks for it. */
const isGate = (c: Circuit, v: LevelVerdict) =>
  c.netlist.instance(v.receiver.ref)?.part.elements.some((e) => e.kind === "fet" && e.g === v.receiver.pin) ?? false;

/** One finding a receiver pin: the worst of its drivers. */
function worst(list: LevelVerdict[], score: (v: LevelVerdict) => number): LevelVerdict[] {
  const out = new Map<string, LevelVerdict>();
  for (const v of list) {
    const known = out.get(pinOf(v.receiver));
    if (!known || score(v) < score(known)) out.set(pinOf(v.receiver), v);
  }
  return [...out.values()];
}

/** Whether the data that a threshold rests on is a guess: then nobody can say that it will not work. */
const unsure = (c: Circuit, v: LevelVerdict) =>
  [v.driver, v.receiver].some((x) => c.netlist.instance(x.ref)?.part.certainty === "low");

/** What fails at usual supplies will not work; what only fails in a corner, or by data that nobody is sure of, may not. */
const gradeOf = (c: Circuit, v: LevelVerdict, usual: number) => (usual >= 0 || unsure(c, v) ? "risk" : "fault");
const whenWords = (c: Circuit, v: LevelVerdict, usual: number) =>
  usual >= 0 ? " when both supplies stand badly" : unsure(c, v) ? ", by data that is not sure" : "";

const lowHigh: Rule = {
  rule: "level.low-high",
  says: "A driver's guaranteed high must reach what the receiver needs to see a high (VIH).",
  check: (c) =>
    worst(
      c.levels.filter((v) => v.marginHigh < 0 && !isGate(c, v)),
      (v) => v.marginHigh,
    ).map((v): Finding => ({
      rule: "level.low-high",
      severity: gradeOf(c, v, v.usualHigh),
      at: at(v),
      message: `${pinOf(v.driver)} gives at least ${formatV(v.high_V)} as a high, but ${pinOf(v.receiver)} (${label(c, owner(c, v.receiver.ref))}) needs ${formatV(v.VIH)}: ${formatV(-v.marginHigh)} short${whenWords(c, v, v.usualHigh)}.`,
      evidence: evidence(v),
      fixes: [
        ...bufferFix(c, v),
        ...(v.driver.how === "pull-up" ? twoWayFix(c, v) : []),
        ...logicSupplyFix(c, v.receiver.ref),
      ],
    })),
};

const highLow: Rule = {
  rule: "level.high-low",
  says: "A driver's guaranteed low must stay under what the receiver takes as a low (VIL).",
  check: (c) =>
    worst(
      c.levels.filter((v) => v.marginLow < 0),
      (v) => v.marginLow,
    ).map((v): Finding => ({
      rule: "level.high-low",
      severity: gradeOf(c, v, v.usualLow),
      at: at(v),
      message: `${pinOf(v.driver)} pulls down to ${formatV(v.low_V)} only, but ${pinOf(v.receiver)} needs ${formatV(v.VIL)} or less for a low${whenWords(c, v, v.usualLow)}.`,
      evidence: evidence(v),
      fixes: [...bufferFix(c, v), ...logicSupplyFix(c, v.receiver.ref)],
    })),
};

const thin: Rule = {
  rule: "level.thin-margin",
  says: `Less than ${THIN_MARGIN_V} V between what a driver guarantees and what the receiver needs leaves no room for noise.`,
  check: (c) => {
    const strict = houseRule(c.project, "levelPolicy") === "same-nominal";
    const isThin = (v: LevelVerdict) =>
      v.marginHigh >= 0 && v.marginLow >= 0 && Math.min(v.marginHigh, v.marginLow) < THIN_MARGIN_V;
    const differs = (v: LevelVerdict) =>
      strict &&
      v.marginHigh >= 0 &&
      v.marginLow >= 0 &&
      Math.abs(v.driver.V.typ - v.receiver.V.typ) > 0.25 &&
      v.driver.net === v.receiver.net;
    return worst(
      c.levels.filter((v) => (isThin(v) || differs(v)) && !isGate(c, v)),
      (v) => Math.min(v.marginHigh, v.marginLow),
    ).map((v): Finding => {
      const high = v.marginHigh <= v.marginLow;
      const message = isThin(v)
        ? `Only ${formatV(Math.min(v.marginHigh, v.marginLow))} of margin: ${pinOf(v.driver)} guarantees ${formatV(high ? v.high_V : v.low_V)}, ${pinOf(v.receiver)} needs ${formatV(high ? v.VIH : v.VIL)} for a ${high ? "high" : "low"}.`
        : `${pinOf(v.driver)} works at ${v.driver.V.typ.toFixed(1)} V and ${pinOf(v.receiver)} at ${v.receiver.V.typ.toFixed(1)} V; the house rule asks for the same voltage on both sides.`;
      return {
        rule: "level.thin-margin",
        severity: "risk",
        at: at(v),
        message,
        evidence: evidence(v),
        fixes: [...bufferFix(c, v), ...logicSupplyFix(c, v.receiver.ref)],
      };
    });
  },
};

/** A part whose signals have the level of its supply may be fed as the board is; nothing need stand in between then. */
function riseFix(c: Circuit, v: LevelVerdict): Fix[] {
  const part = c.netlist.instance(v.receiver.ref);
  const rides = c.netlist.level(v.receiver.ref, v.receiver.pin)?.supply;
  const fed = part?.part.pins.some((p) => p.role === "supply-in" && p.supply === rides);
  return fed && !part?.part.board ? logicSupplyFix(c, v.receiver.ref) : [];
}

const overdrive: Rule = {
  rule: "level.overdrive",
  says: "No pin may ever see more than its absolute maximum, usually its own supply and a few tenths of a volt.",
  check: (c) =>
    worst(
      c.levels.filter((v) => v.highest_V > v.ceiling + 1e-9),
      (v) => v.ceiling - v.highest_V,
    ).map((v): Finding => {
      const b = needPart(c, v);
      return {
        rule: "level.overdrive",
        severity: "stop",
        at: at(v),
        message:
          v.driver.how === "pull-up"
            ? `A pull-up lifts ${pinOf(v.receiver)} to as much as ${formatV(v.highest_V)}; it takes ${formatV(v.ceiling)} at most. Do not power this.`
            : `${pinOf(v.driver)} can put ${formatV(v.highest_V)} on ${pinOf(v.receiver)}, which takes ${formatV(v.ceiling)} at most. Do not power this.`,
        evidence: evidence(v),
        fixes: [
          ...dividerFix(c, v),
          ...(v.driver.how === "pull-up"
            ? [...pullSupplyFix(c, v), ...twoWayFix(c, v)]
            : [...riseFix(c, v), ...translatorFix(c, v, THIN_MARGIN_V), ...logicSupplyFix(c, v.driver.ref)]),
          ...(b && b.ref === v.receiver.ref && !v.driver.ref.startsWith("B")
            ? moveFix(c, b.ref, b.pin, b.host, b.need)
            : []),
        ],
      };
    }),
};

/** On a pulled-up bus the part whose pull-ups go too high is the one to feed differently. */
function pullSupplyFix(c: Circuit, v: LevelVerdict): Fix[] {
  const nets = new Set([v.driver.net, v.receiver.net]);
  const refs = c.netlist.elements
    .filter((e) => e.kind === "resistor" && (nets.has(e.a) || nets.has(e.b)))
    .filter((e) =>
      [e.a, e.b].some(
        (id) => (c.netlist.nets.find((n) => n.id === id && n.kind === "supply")?.V?.max ?? 0) > v.ceiling,
      ),
    )
    .map((e) => e.ref);
  return [...new Set(refs)].flatMap((ref) => logicSupplyFix(c, ref));
}

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

const backfeed: Rule = {
  rule: "level.backfeed",
  says: "A signal into a part whose own supply is off feeds that part through its input: it half works, or its input dies.",
  check: (c) => {
    const over = backfeeds(c).filter((x) => x.into_mA > x.limit_mA || overWhileOff(c, x));
    /** The pins of a part that the same fix is for. */
    const all = (ref: string) =>
      over.flatMap(({ v }) => [v.receiver, v.driver]).flatMap((x) => (x.ref === ref ? [x.pin] : []));
    return over.map((x): Finding => {
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

export const levelRules: Rule[] = [lowHigh, highLow, thin, overdrive, backfeed];
