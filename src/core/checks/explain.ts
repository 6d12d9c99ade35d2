import type { Circuit } from "../circuit";
import type { NetElement } from "../circuit/netlist";
import type { Extreme, Flow, NetVolts, Way } from "../circuit/solve";
import { evidenceSentences } from "./evidence";
import { formatOhm, formatSI, formatV } from "../quantity";
import { label } from "./help";
import { RULES } from "./rules";
import { shareOf, shareWords } from "./share";
import { supplyWays, type SupplyWay } from "../circuit/power";
import { endWords } from "./rules/words";
import type { Finding } from "./types";

/** A number that a finding rests on: usual and at the worst corner, and when and how it comes about. */
export interface Ground {
  at: string;
  what: "highest volts" | "lowest volts" | "amperes";
  unit: "V" | "A";
  typ: number;
  worst: number;
  /** The way of the voltage or current, from its source on. */
  via: string;
  /** Contacts, outputs and wipers as they stand in that case. */
  when: string;
}

const ELEMENT: Record<NetElement["kind"], (e: NetElement) => string> = {
  resistor: (e) => formatOhm(e.ohm ?? 0),
  capacitor: (e) => formatSI(e.F ?? 0, "F"),
  led: (e) => `light, ${formatV(e.Vf?.typ ?? 0)}`,
  diode: (e) => `diode, ${formatV(e.Vf?.typ ?? 0)}`,
  contact: () => "contact, closed",
  load: (e) => formatSI(e.A?.typ ?? 0, "A"),
  bjt: () => "transistor",
  fet: () => "MOSFET",
};
const step = (e: NetElement) => `${e.ref} (${ELEMENT[e.kind](e)})`;

const wayOf = (c: Circuit, w: Way, here: string, onwards?: Way): string =>
  [
    endWords(c, w.end),
    ...[...w.passed].reverse().map(step),
    here,
    ...(onwards ? [...onwards.passed.map(step), endWords(c, onwards.end)] : []),
  ].join(" → ");

function whenOf(e: Extreme): string {
  const closed = [...new Set([...e.state.closed].map((x) => x.ref))];
  const drives = [...e.state.drive].map(([pin, level]) => `${pin} ${level}`);
  return [
    closed.length ? `${closed.join(", ")} closed` : "",
    drives.join(", "),
    e.state.wiper !== 0.5 ? `wiper at ${e.state.wiper * 100} %` : "",
  ]
    .filter(Boolean)
    .join("; ");
}

function ofNet(c: Circuit, at: string, v: NetVolts): Ground[] {
  const via = wayOf(c, v.from, at);
  return [
    { at, what: "highest volts", unit: "V", typ: v.high.typ, worst: v.high.worst, via, when: whenOf(v.high) },
    { at, what: "lowest volts", unit: "V", typ: v.low.typ, worst: v.low.worst, via: "", when: whenOf(v.low) },
  ];
}

const ofFlow = (c: Circuit, f: Flow): Ground => ({
  at: f.element.ref,
  what: "amperes",
  unit: "A",
  typ: f.A.typ,
  worst: f.A.worst,
  via: wayOf(c, f.from, step(f.element), f.to),
  when: whenOf(f.A),
});

/** What the solved circuit says of the places of a finding: volts of its pins, amperes of its parts. */
export function groundsOf(c: Circuit, f: Finding): Ground[] {
  const seen = new Set<string>();
  return f.at.flatMap((at): Ground[] => {
    if (seen.has(at)) return [];
    seen.add(at);
    const [ref = "", pin] = at.split(/\.(.*)/s);
    const inst = c.netlist.instance(ref);
    if (inst && pin) {
      const net = c.netlist.netOf(at);
      const v = net && c.solved.volts.get(net.id);
      if (v) return ofNet(c, at, v);
      if (net?.V && net.kind === "supply") {
        const via = endWords(c, { kind: "rail", net });
        return [{ at, what: "highest volts", unit: "V", typ: net.V.typ, worst: net.V.max, via, when: "" }];
      }
      return [];
    }
    return [...c.solved.flows.values()]
      .filter((x) => x.element.ref === at && x.A.typ > 1e-6)
      .slice(0, 2)
      .map((x) => ofFlow(c, x));
  });
}

/** The volts over each step of a way at its usual current: how a sum comes out. */
function sums(c: Circuit, f: Finding): string[] {
  const flow = [...c.solved.flows.values()].find((x) => f.at.includes(x.element.ref) && x.A.typ > 1e-6);
  if (!flow) return [];
  const row = [...[...flow.from.passed].reverse(), flow.element, ...flow.to.passed];
  return row.map((e) => {
    const I = flow.A.typ;
    if (e.kind === "resistor") return `  ${e.ref}: ${formatSI(I, "A")} × ${formatOhm(e.ohm!)} = ${formatV(I * e.ohm!)}`;
    if (e.Vf) return `  ${e.ref}: ${formatV(e.Vf.min)} to ${formatV(e.Vf.max)}, usually ${formatV(e.Vf.typ)}`;
    return `  ${step(e)}`;
  });
}

const STEP_WORDS: Record<SupplyWay["steps"][number]["kind"], string> = {
  source: "gives",
  inside: "keeps inside",
  cable: "over the cable",
  converter: "regulator or diode of",
  wire: "over the wire to",
};

/** The way of the supply of each part that a finding names: what every step takes, and what is left behind it. */
function supplyLines(c: Circuit, f: Finding): string[] {
  if (!/^(power|wire|level)\./.test(f.rule)) return [];
  const refs = new Set(f.at.map((x) => x.split(".")[0]!));
  return supplyWays(c.netlist, c.power)
    .filter((w) => refs.has(w.ref) && w.steps.some((s) => s.drop.worst > 0.001))
    .flatMap((w) => [
      `supply of ${w.ref}, usually and at worst:`,
      ...w.steps.map((s) => {
        const drop = s.kind === "source" ? "" : `−${formatV(s.drop.typ)} and −${formatV(s.drop.worst)}: `;
        return `  ${s.kind === "source" ? `${s.ref} gives ` : `${STEP_WORDS[s.kind]} ${s.ref} `}${drop}${formatV(s.V.typ)} and ${formatV(s.V.worst)}`;
      }),
    ]);
}

const value = (g: Ground, x: number) => (g.unit === "V" ? formatV(x) : formatSI(x, "A"));

/** A finding with the way and the sums that it rests on, as lines of plain text. */
export function explain(c: Circuit, f: Finding): string[] {
  const rule = RULES.find((r) => r.rule === f.rule);
  const grounds = groundsOf(c, f);
  const steps = sums(c, f);
  const share = shareOf(c, f);
  const supply = supplyLines(c, f);
  return [
    `${f.severity} ${f.rule} at ${f.at.join(", ")}`,
    `  ${f.message}`,
    ...(rule ? [`the rule: ${rule.says}`] : []),
    "the numbers:",
    ...evidenceSentences(f).map((line) => `  ${line}`),
    ...(grounds.length || supply.length || share !== null ? ["the circuit, solved:"] : []),
    ...grounds.flatMap((g) => [
      `  ${g.at}${label(c, g.at) === g.at ? "" : ` (${label(c, g.at)})`}: ${g.what} ${value(g, g.typ)} usually, ${value(g, g.worst)} at worst${g.when ? `, with ${g.when}` : ""}`,
      ...(g.via ? [`    ${g.via}`] : []),
    ]),
    ...(share === null ? [] : [`of many builds: ${shareWords(share)}`]),
    ...supply,
    ...(steps.length > 1 ? ["step by step:", ...steps] : []),
    ...(f.fixes.length ? ["what would help:", ...f.fixes.map((x) => `  ${x.id}: ${x.label}`)] : []),
  ];
}
