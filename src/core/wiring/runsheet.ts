import { findPin } from "../catalogue";
import type { Circuit } from "../circuit";
import type { Instance, Net, Wire } from "../netlist";
import { JUMPER_A, supplyWires } from "../power";
import { houseRule, joinEnd } from "../project";
import { netColours } from "./colours";
import { pinWords } from "./position";

/** The order in which it is safe to build: nothing carries power until the last row. */
export const PHASES = [
  { id: "prepare", title: "Unplug and look", why: "Wire only with every supply unplugged." },
  { id: "ground", title: "Grounds", why: "Ground first: every part shares it." },
  { id: "supply", title: "Supplies, not yet connected", why: "Supply wires go to rails that nothing feeds yet." },
  { id: "bus", title: "Buses", why: "Shared lines: the same two wires visit every part." },
  { id: "signal", title: "Signals", why: "One wire for each pin of the plan." },
  { id: "source", title: "Sources, last", why: "Plug in only when the checks before power are done." },
] as const;
export type PhaseId = (typeof PHASES)[number]["id"];

export interface RunRow {
  /** Stable across edits that do not touch this wire; ticks are kept by it. */
  id: string;
  step: number;
  phase: PhaseId;
  kind: "look" | "wire" | "leg" | "cable";
  from: string;
  to: string;
  fromWords: string;
  toWords: string;
  net: string;
  colour: string;
  length_cm: number;
  endA: string;
  endB: string;
  note: string;
}

interface Point {
  ref: string;
  pin: string;
}
type Stretch = { a: Point | string; b: Point | string; because?: string; cable?: boolean };

const DEFAULT_CM = 20;
const isLead = (i: Instance | undefined) => i?.part.body.header?.kind === "leads" && i.part.pins.length === 2;

function endKind(inst: Instance | undefined): string {
  const kind = inst?.part.body.header?.kind;
  if (inst?.part.board) return "pin";
  return { male: "socket", female: "pin", pads: "pin", leads: "leg", wires: "bare", screw: "bare", plug: "plug" }[
    kind ?? "male"
  ];
}

const priority = (c: Circuit, p: Point) => {
  const inst = c.netlist.instance(p.ref)!;
  if (inst.part.id.startsWith("supply/")) return 0;
  return inst.part.board ? 1 : inst.inserted ? 3 : 2;
};

/** Both ends of a wire, in one order: its name wherever it is laid. */
const pair = (a: string, b: string) => [a, b].sort().join("~");

const NOTHING: ReadonlyMap<string, string> = new Map();

/** The wires of one net as they are really laid: direct for two ends, by house rule for more. */
function lay(c: Circuit, net: Net, wires: Wire[], heavy: ReadonlyMap<string, string>): Stretch[] {
  const points = new Map<string, Point>();
  for (const w of wires) for (const e of [w.from, w.to]) points.set(joinEnd(e), e);
  const list = [...points.values()].sort((a, b) => priority(c, a) - priority(c, b));
  const shared = net.kind === "supply" || net.kind === "ground" || net.kind === "bus-line";
  const direct = (w: Wire): Stretch => ({ a: w.from, b: w.to, ...(w.because && { because: w.because }) });
  if (list.length <= 2 || !shared) return wires.map(direct);
  // What carries more than a rail stands goes straight from end to end; the rest shares.
  const strong = wires.filter((w) => heavy.has(pair(joinEnd(w.from), joinEnd(w.to))));
  if (strong.length)
    return [
      ...strong.map(direct),
      ...lay(
        c,
        net,
        wires.filter((w) => !strong.includes(w)),
        NOTHING,
      ),
    ];
  const rule = houseRule(c.project, "sharing");
  if (rule === "daisy-chain" || net.kind === "bus-line") return list.slice(1).map((p, i) => ({ a: list[i]!, b: p }));
  const hub =
    rule === "rails" ? (net.kind === "ground" ? `${net.name} rail (−)` : `${net.name} rail (+)`) : `${net.name} splice`;
  return list.map((p) => ({ a: p, b: hub }));
}

function looks(c: Circuit): Omit<RunRow, "step">[] {
  const row = (id: string, at: string, note: string): Omit<RunRow, "step"> => ({
    id,
    phase: "prepare",
    kind: "look",
    from: at,
    to: "",
    fromWords: at,
    toWords: "",
    net: "",
    colour: "",
    length_cm: 0,
    endA: "",
    endB: "",
    note,
  });
  const out = [row("look-unplug", "everything", "Unplug every supply and every USB cable before the first wire.")];
  for (const i of c.netlist.expanded.instances.values()) {
    const way = i.part.body.orientation === "Either way round." ? "" : (i.part.body.orientation ?? "");
    const care = i.part.cautions.map((t) => `Take care: ${t}`);
    if (way || care.length)
      out.push(row(`look-${i.ref}`, i.ref, `${i.label}: ${[way, ...care].filter(Boolean).join(" ")}`));
  }
  return out;
}

/** What is to be minded of a wire that carries more than a jumper stands, or that has a chosen gauge. */
const heavyWires = (c: Circuit): Map<string, string> =>
  new Map(
    supplyWires(c.netlist, c.power)
      .filter((w) => w.chosen || w.peak_A > JUMPER_A)
      .map((w) => [
        pair(w.from, w.to),
        `${w.awg} AWG, up to ${w.peak_A.toFixed(1)} A${w.peak_A > JUMPER_A ? ": no jumper, no breadboard rail" : ""}`,
      ]),
  );

const phaseOf = (net: Net): PhaseId =>
  net.kind === "ground" ? "ground" : net.kind === "supply" ? "supply" : net.kind === "bus-line" ? "bus" : "signal";

/**
 * The run sheet: every wire once, in safe build order, with where both ends are, colour, length and ends. Shared nets
 * follow the house rule; bus lines run from part to part; source cables come last.
 */
export function runSheet(c: Circuit): RunRow[] {
  const colours = netColours(c.netlist.nets, c.project.houseRules.wireColours);
  const cm = new Map(c.project.parts.map((p) => [p.ref, p.wire_cm]));
  // A loose part stands close to what it serves; only the wire to the module itself has the length that the person gave.
  const lengthOf = (p: Point | string) => (typeof p === "string" ? 0 : (cm.get(p.ref) ?? 0));
  const words = (p: Point | string) => {
    if (typeof p === "string") return p;
    const inst = c.netlist.instance(p.ref)!;
    return `${inst.label}: ${pinWords(inst, p.pin)}`;
  };
  const name = (p: Point | string) => (typeof p === "string" ? p : joinEnd(p));
  const heavy = heavyWires(c);
  const rows: Omit<RunRow, "step">[] = looks(c);
  const push = (net: Net, s: Stretch, phase: PhaseId) => {
    const [ia, ib] = [s.a, s.b].map((p) => (typeof p === "string" ? undefined : c.netlist.instance(p.ref)));
    const leg = !s.cable && (isLead(ia) || isLead(ib));
    rows.push({
      id: pair(name(s.a), name(s.b)),
      phase,
      kind: s.cable ? "cable" : leg ? "leg" : "wire",
      from: name(s.a),
      to: name(s.b),
      fromWords: words(s.a),
      toWords: words(s.b),
      net: net.name,
      colour: s.cable || (isLead(ia) && isLead(ib)) ? "" : colours.get(net.id)!,
      length_cm: s.cable ? 100 : Math.max(lengthOf(s.a), lengthOf(s.b)) || (leg ? 10 : DEFAULT_CM),
      endA: s.cable ? "plug" : ia ? endKind(ia) : "pin",
      endB: s.cable ? "plug" : ib ? endKind(ib) : "pin",
      note: [s.because, heavy.get(pair(name(s.a), name(s.b)))].filter(Boolean).join(". "),
    });
  };
  const isSource = (p: Point | string) =>
    typeof p !== "string" &&
    c.netlist.instance(p.ref)!.part.id.startsWith("supply/") &&
    findPin(c.netlist.instance(p.ref)!.part, p.pin)?.role !== "ground";
  for (const phase of PHASES) {
    for (const net of c.netlist.nets) {
      const wires = c.netlist.wires.filter((w) => !w.cable && c.netlist.netOf(joinEnd(w.from)) === net);
      for (const s of lay(c, net, wires, heavy)) {
        const at = net.kind === "supply" && (isSource(s.a) || isSource(s.b)) ? "source" : phaseOf(net);
        if (at === phase.id) push(net, s, at);
      }
    }
    if (phase.id === "source")
      for (const w of c.netlist.wires)
        if (w.cable)
          push(
            c.netlist.netOf(`${w.from.ref}:${findPin(c.netlist.instance(w.from.ref)!.part, w.from.pin)!.supply}`),
            { a: w.from, b: w.to, cable: true, because: "Plug in only when every check before power is done." },
            "source",
          );
  }
  return rows.map((r, i) => ({ ...r, step: i + 1 }));
}
