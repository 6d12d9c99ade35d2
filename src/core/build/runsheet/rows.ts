import { findPin } from "../../parts/catalogue";
import type { Circuit } from "../../circuit";
import { linkBehind, separateGrounds, type Instance, type Net } from "../../circuit/netlist";
import { JUMPER_AWG } from "../../circuit/power";
import { railRow, readHole, type Layout, type PlacedPart } from "../breadboard";
import { houseRule, splitEnd, USUAL_CM, type Project } from "../../project";
import { wireColour } from "../colours";
import { benchName, valueOf } from "../names";
import { pinWords } from "../position";
import { checkpoints, staysOn } from "./checkpoints";
import { endKind, isLead, isSupply, OWN_LEG, takesLeg } from "./ends";
import { PHASES, type PhaseId } from "./phases";
import { isLaid, type RunRow } from "./row";
import { laidNets } from "./laid";
import { nameOf, pairName, type Hub, type Point, type Stretch } from "./sharing";
import { CHECK, solderWork, wayRound, WHY } from "./words";

type Draft = Omit<RunRow, "step">;

/** A wire to a part that stands right at its supply pin. */
const CLOSE_CM = 10;
const CABLE_CM = 100;
/** What a jumper needs besides the way between its holes: both ends down, and a bend. */
const HOLE_MM = 20;

/** A step at one part, or at the whole bench. */
const stepAt = (id: string, phase: PhaseId, kind: RunRow["kind"], at: string, note: string): Draft => ({
  id,
  phase,
  kind,
  from: at,
  to: "",
  fromWords: at,
  toWords: "",
  net: "",
  colour: "",
  length_cm: 0,
  endA: "",
  endB: "",
  holeA: "",
  holeB: "",
  awg: 0,
  note,
  why: WHY[phase],
  check: CHECK[phase],
});

/** Where a part goes on the breadboard: its outermost pins with their holes. */
function placeWords(part: PlacedPart): string {
  const [first, last] = [part.holes[0], part.holes.at(-1)];
  if (!first || !last) return "";
  if (part.holes.length <= 4) return `${part.holes.map((h) => `${h.pin} in ${h.hole}`).join(", ")}.`;
  const corners = [
    first,
    part.holes.find((h) => h.hole.replace(/.*?([a-j])\d+$/, "$1") !== first.hole.replace(/.*?([a-j])\d+$/, "$1")),
    last,
  ];
  return `${corners.flatMap((h) => (h ? [`${h.pin} in ${h.hole}`] : [])).join(", ")}.`;
}

/** Beside the holes of a part whose header is a guess. */
const UNREAD =
  "Header not confirmed: these holes are right only if its labels read in this order. Hold it beside the drawing first.";

function atParts(c: Circuit, layout: Layout | null): Draft[] {
  const places = new Map(layout?.parts.map((p) => [p.ref, placeWords(p)]));
  const all = [...c.netlist.expanded.instances.values()];
  const soldered = houseRule(c.project, "firstBuild") === "solder";
  const solder = all.flatMap((i) => {
    const work = i.inserted ? null : solderWork(i, soldered);
    return work ? [stepAt(`solder-${i.ref}`, "solder", "solder", i.ref, `${i.label}: ${work}`)] : [];
  });
  const turn = all.flatMap((i) => {
    const care = i.part.cautions.map((t) => `Take care: ${t}`);
    const place = places.get(i.ref);
    // Holes by a guess at the header: the person looks before it is pushed in.
    const unread = place && !i.reading.confirmed && UNREAD;
    const says = [place, unread, wayRound(i), ...care].filter(Boolean).join(" ");
    return says ? [stepAt(`look-${i.ref}`, "place", "turn", i.ref, `${benchName(i)}: ${says}`)] : [];
  });
  return [
    stepAt(
      "look-unplug",
      "prepare",
      "look",
      "everything",
      "Unplug every supply and every USB cable before the first wire.",
    ),
    ...solder,
    ...turn,
  ];
}

/** Nets on which something draws heavily or kicks back: motors, coils, lamps, and parts with a supply for loads. */
function isLoad(c: Circuit, net: Net): boolean {
  return (
    net.kind === "signal" && c.netlist.elements.some((e) => e.kind === "load" && (e.a === net.id || e.b === net.id))
  );
}
const feedsLoads = (i: Instance | undefined, pin: string) => {
  const supply = i && findPin(i.part, pin)?.supply;
  return supply ? (i.part.supplies[supply]?.forLoads ?? false) : false;
};

function phaseOf(c: Circuit, net: Net, s: Stretch): PhaseId {
  if (net.kind === "ground") return "ground";
  const ends = [s.a, s.b].flatMap((p) =>
    typeof p === "string" ? [] : [{ inst: c.netlist.instance(p.ref), pin: p.pin }],
  );
  if (net.kind === "supply") {
    if (ends.some((e) => isSupply(e.inst))) return "source";
    return ends.some((e) => feedsLoads(e.inst, e.pin)) ? "load" : "supply";
  }
  if (isLoad(c, net)) return "load";
  return net.kind === "bus-line" ? "bus" : "signal";
}

const usbNet = (c: Circuit, w: Circuit["netlist"]["wires"][number]) =>
  c.netlist.netOf(`${w.from.ref}:${findPin(c.netlist.instance(w.from.ref)!.part, w.from.pin)!.supply}`);

/** A hole as it is found on the board: of a rail any free one near a row will do, on the same piece of it. */
function holeWords(hole: string, at: string, isPin: boolean, layout: Layout | null): string {
  const h = layout && readHole(hole, layout.sizes);
  if (h?.kind !== "rail") return `hole ${hole}, ${isPin ? `in the row of ${at}` : at}`;
  const size = layout!.sizes[h.board]!;
  const broken = layout!.split && size === "830" ? ", on this side of the gap in the middle" : "";
  const board = layout!.sizes.length > 1 ? `board ${h.board + 1}, ` : "";
  return `${board}${h.half} ${h.pole === "-" ? "−" : "+"} rail, beside row ${railRow(size, h.n)} (${hole}), any free hole near it${broken}: ${at}`;
}

/** A part as it is found among its like: name, reference and value. */
function partWords(i: Instance): string {
  const name = benchName(i);
  return name.includes(i.ref) ? name : `${name} (${[i.ref, valueOf(i)].filter(Boolean).join(", ")})`;
}

/**
 * The wires of each group in the order of laying: those that leave the breadboard last or first, as the project says; of these
 * one colour after the other, so that each is cut and laid at a time. Groups stay as they are.
 */
function inLayingOrder(rows: readonly Draft[], project: Project, onBoard: boolean): Draft[] {
  const leavesFirst = houseRule(project, "leads") === "first";
  const place = (r: Draft) => {
    if (!onBoard) return 0;
    return Number((r.holeA === "" || r.holeB === "") !== leavesFirst);
  };
  const group = (r: Draft) => `${r.phase} ${place(r)}`;
  const colours = new Map<string, string[]>();
  for (const r of rows) {
    const known = colours.get(group(r)) ?? [];
    if (!known.includes(r.colour)) known.push(r.colour);
    colours.set(group(r), known);
  }
  const nth = (r: Draft) => colours.get(group(r))!.indexOf(r.colour);
  const phase = (r: Draft) => PHASES.findIndex((p) => p.id === r.phase);
  return [...rows].sort((a, b) => phase(a) - phase(b) || place(a) - place(b) || nth(a) - nth(b));
}

/** Every step and wire, with what rows of the breadboard join by themselves, which has no step of its own. */
function makeRows(c: Circuit): RunRow[] {
  const cm = new Map(c.project.parts.map((p) => [p.ref, p.wire_cm]));
  const instanceOf = (p: Point | Hub) => (typeof p === "string" ? undefined : c.netlist.instance(p.ref));
  // A loose part stands close to what it serves; only the wire to the module itself has the length that the person gave.
  const given = (p: Point | Hub) => (typeof p === "string" ? 0 : (cm.get(p.ref) ?? 0));
  const words = (p: Point | Hub, hole: string) => {
    const inst = instanceOf(p);
    const at = inst ? `${partWords(inst)}: ${pinWords(inst, (p as Point).pin)}` : (p as Hub);
    return hole ? holeWords(hole, at, inst !== undefined, layout) : at;
  };
  const { nets, layout } = laidNets(c);
  // What the person said of this very wire goes before what holds for the whole part.
  const own = (s: Stretch) => linkBehind(c.netlist, nameOf(s.a), nameOf(s.b));
  const lengthOf = (s: Stretch): number => {
    if (s.cable) return CABLE_CM;
    if (s.joined) return 0;
    if (own(s)?.cm !== undefined && !(s.holes?.[0] && s.holes[1])) return own(s)!.cm!;
    if (s.close) return CLOSE_CM;
    // A jumper on the breadboard: from hole to hole, with what goes down into both.
    if (s.holes?.[0] && s.holes[1]) return Math.ceil((s.apart_mm! + HOLE_MM) / 10);
    return Math.max(given(s.a), given(s.b)) || USUAL_CM;
  };
  const apart = separateGrounds(c.netlist);
  const soldered = houseRule(c.project, "firstBuild") === "solder";

  const row = (net: Net, s: Stretch, phase: PhaseId): Draft => {
    const [ia, ib] = [instanceOf(s.a), instanceOf(s.b)];
    const [holeA, holeB] = [s.holes?.[0] ?? "", s.holes?.[1] ?? ""];
    const end = (p: Point | Hub, inst: Instance | undefined, hole: string) =>
      s.cable ? "plug" : inst && !hole ? endKind(inst, (p as Point).pin, soldered) : soldered ? "bare" : "pin";
    const [tipA, tipB] = [end(s.a, ia, holeA), end(s.b, ib, holeB)];
    // On a breadboard a leg sits in its row, and what leaves the row is a wire; a leg does not sit on a pin or in a plug either.
    // Where the person gave the wire a length, or the part at its other end, there is a wire.
    const asked = given(s.a) > 0 || given(s.b) > 0 || own(s)?.cm !== undefined || own(s)?.awg !== undefined;
    const reaches = (isLead(ia) && takesLeg(tipB)) || (isLead(ib) && takesLeg(tipA));
    const leg = !s.cable && !s.holes && reaches && (s.close || !asked);
    const legOr = (inst: Instance | undefined, tip: string) =>
      !leg ? (tip === "leg" ? "bare" : tip) : isLead(inst) || !inst ? OWN_LEG : tip;
    const note = [
      s.because,
      s.joined && "joined by the row of the breadboard: no wire",
      s.heavy?.says,
      apart.has(net.id) && `Isolated: ${net.name} must never meet the other ground`,
    ];
    return {
      id: nameOf(s.a) === nameOf(s.b) ? `${nameOf(s.a)} ${holeA}~${holeB}` : pairName(nameOf(s.a), nameOf(s.b)),
      phase,
      kind: s.joined ? "row" : s.cable ? "cable" : leg ? "leg" : "wire",
      from: nameOf(s.a),
      to: nameOf(s.b),
      fromWords: words(s.a, holeA),
      toWords: words(s.b, holeB),
      net: net.name,
      colour: s.cable || s.joined || leg ? "" : wireColour(c, net.id, nameOf(s.a), nameOf(s.b)),
      length_cm: leg ? 0 : lengthOf(s),
      endA: legOr(ia, tipA),
      endB: legOr(ib, tipB),
      holeA,
      holeB,
      awg: s.cable || leg || s.joined ? 0 : (own(s)?.awg ?? s.heavy?.awg ?? JUMPER_AWG),
      note: note.filter(Boolean).join(". "),
      why: s.cable ? WHY.source : WHY[phase],
      check: CHECK[phase],
    };
  };

  const laid = nets.flatMap(({ net, stretches }) =>
    stretches.map((s) => row(net, s, s.joined ? "place" : phaseOf(c, net, s))),
  );
  const cables = c.netlist.wires
    .filter((w) => w.cable)
    .map((w) =>
      row(
        usbNet(c, w),
        { a: w.from, b: w.to, cable: true, because: "Plug in only when every check before power is done." },
        "source",
      ),
    );
  const sources = [...laid.filter((r) => r.phase === "source"), ...cables];
  const others = inLayingOrder(
    laid.filter((r) => r.phase !== "source"),
    c.project,
    layout !== null,
  );
  // What stays on from its last wire comes after what can be plugged in or switched.
  const live = (r: Draft) => [r.from, r.to].some((e) => staysOn(c.netlist.instance(splitEnd(e).ref)));
  const first = sources.filter((r) => !live(r));
  const last = sources.filter(live);
  const points = checkpoints(c, new Set([...others, ...sources].map((r) => r.phase)));
  const stop = (p: (typeof points)[number]) => stepAt(p.id, p.phase, "look", p.at, p.says);
  const ofLive = new Set(last.flatMap((r) => [r.from, r.to].map((e) => splitEnd(e).ref)));
  const before = points.filter((p) => p.before);
  const all = [
    ...atParts(c, layout),
    ...others,
    ...points.filter((p) => !p.before).map(stop),
    ...before.filter((p) => !ofLive.has(p.at)).map(stop),
    ...first,
    ...before.filter((p) => ofLive.has(p.at)).map(stop),
    ...last,
  ];
  let step = 0;
  return PHASES.flatMap((ph) => all.filter((r) => r.phase === ph.id)).map((r) => ({
    ...r,
    step: r.kind === "row" ? step : ++step,
  }));
}

const memo = new WeakMap<Circuit, RunRow[]>();
/** Remembered for the circuit: run sheet, wire table and tools are all read from it. */
function allRows(c: Circuit): RunRow[] {
  const rows = memo.get(c) ?? makeRows(c);
  memo.set(c, rows);
  return rows;
}

/**
 * The run sheet: every wire once, in safe build order, with where both ends are, colour, length, gauge and ends, why it
 * comes now and what to check. Shared nets follow the house rule; heavy loads go straight to their source; sources last.
 */
export const runSheet = (c: Circuit): RunRow[] => allRows(c).filter((r) => r.kind !== "row");

/** What joins what, for other tools: the wires of the run sheet, and what a row of the breadboard joins without one. */
export const wireList = (c: Circuit): RunRow[] => allRows(c).filter((r) => isLaid(r) || r.kind === "row");
