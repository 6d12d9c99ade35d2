import { count } from "../../quantity/count";
import { circuitOf, type Circuit } from "../../circuit";
import type { Instance } from "../../circuit/netlist";
import { stageHeat } from "../../circuit/power";
import { airOf, houseRule } from "../../project";
import { cutList, type CutRow } from "../lists/cuts";
import { benchName } from "../names";
import { isSupply } from "../runsheet/ends";
import { runSheet } from "../runsheet";
import { heightOf } from "./heights";

export * from "./carrier";

export interface Remark {
  what: string;
  why: string;
}
export interface SolderBuild {
  carrier: { kind: "perfboard" | "direct"; holes: [number, number]; mm: [number, number]; why: string };
  cuts: CutRow[];
  joints: { what: string; n: number }[];
  order: { group: string; parts: string[]; why: string }[];
  strain: Remark[];
  clear: Remark[];
  connectors: { of: string; what: string; n: number }[];
}

const PITCH_MM = 2.54;
/** Parts need their own area and as much again for joints and wires. */
const SPREAD = 2.2;
/** Fewer loose parts than this need no carrier. */
const FEW = 4;
const LONG_CM = 15;
const WARM_W = 0.5;

const inBox = (i: Instance) => heightOf(i) !== null;
const pinsOf = (i: Instance) => i.part.pins.filter((p) => p.role !== "cable" && p.role !== "nc").length;

/** The same circuit as it is when it is soldered at once: no breadboard, no sockets. */
const asSoldered = (c: Circuit): Circuit =>
  houseRule(c.project, "firstBuild") === "solder" && !c.project.breadboard
    ? c
    : circuitOf(
        { ...c.project, breadboard: undefined, houseRules: { ...c.project.houseRules, firstBuild: "solder" } },
        c.catalogue,
      );

/** Joints by what they are for: headers and legs of the parts, and wire ends that no screw, plug or socket takes. */
function countJoints(c: Circuit, atOnce: boolean): SolderBuild["joints"] {
  let [headers, legs, wires] = [0, 0, 0];
  for (const i of c.netlist.expanded.instances.values()) {
    if (i.part.body.solder === "headers" && !atOnce)
      headers += i.part.board ? pinsOf(i) : (i.part.body.header?.pins ?? pinsOf(i));
    else if (i.part.body.header?.kind === "leads") legs += pinsOf(i);
  }
  // Screws, plugs and sockets take a wire as it is; everything else is soldered.
  for (const r of runSheet(c))
    if (r.kind === "wire") wires += [r.endA, r.endB].filter((e) => e !== "screw" && e !== "plug" && e !== "pin").length;
  return [
    { what: "header pins", n: headers },
    { what: "legs of loose parts", n: legs },
    { what: "wire ends", n: wires },
  ].filter((j) => j.n > 0);
}

function carrierFor(all: Instance[]): SolderBuild["carrier"] {
  const inside = all.filter(inBox);
  const loose = inside.filter((i) => i.part.body.header?.kind === "leads" && !i.part.board);
  if (loose.length < FEW)
    return {
      kind: "direct",
      holes: [0, 0],
      mm: [0, 0],
      why: `${loose.length} loose parts: soldered straight to the wires, each joint in heat-shrink tube`,
    };
  const area = inside.reduce((s, i) => s + i.part.body.mm[0] * i.part.body.mm[1], 0) * SPREAD;
  const longest = Math.max(...inside.map((i) => Math.max(...i.part.body.mm)));
  const w = Math.max(longest + 4 * PITCH_MM, Math.sqrt(area * 1.4));
  const holes = [Math.ceil(w / PITCH_MM), Math.ceil(area / w / PITCH_MM)] as [number, number];
  return {
    kind: "perfboard",
    holes,
    mm: [Math.round(holes[0] * PITCH_MM), Math.round(holes[1] * PITCH_MM)],
    why: `${loose.length} loose parts and ${inside.length - loose.length} boards and modules, with as much room again for joints`,
  };
}

function orderOf(all: Instance[]): SolderBuild["order"] {
  const groups = new Map<string, { mm: number; why: string; parts: string[] }>();
  for (const i of all) {
    const h = heightOf(i);
    if (!h) continue;
    const g = groups.get(h.group) ?? { mm: h.mm, why: h.why, parts: [] };
    g.parts.push(benchName(i));
    groups.set(h.group, g);
  }
  return [...groups.entries()]
    .sort(([, a], [, b]) => a.mm - b.mm)
    .map(([group, { why, parts }]) => ({ group, parts, why }));
}

function strainOf(c: Circuit, all: Instance[]): Remark[] {
  const cm = new Map(c.project.parts.map((p) => [p.ref, p.wire_cm ?? 0]));
  return all.flatMap((i): Remark[] => {
    const name = benchName(i);
    if (isSupply(i) && i.part.body.header?.kind !== "plug")
      return [{ what: name, why: "its leads are pulled when it is changed: a knot or a clamp inside the box" }];
    if (/motor|servo|pump|solenoid|stepper/.test(i.part.id))
      return [{ what: name, why: "it moves or shakes: hold its wires within two centimetres of the joint" }];
    if (/strip|matrix|ring/.test(i.part.id))
      return [{ what: name, why: "pads tear off: glue or tape over the soldered end" }];
    if (i.part.id.startsWith("connector/"))
      return [{ what: name, why: "plugging pulls at it: fix it to the box, not to the wires" }];
    if ((cm.get(i.ref) ?? 0) > LONG_CM)
      return [
        { what: name, why: `its wires are ${cm.get(i.ref)} cm long and leave the box: a grommet and a tie inside` },
      ];
    return [];
  });
}

function clearOf(c: Circuit, all: Instance[]): Remark[] {
  const out: Remark[] = [];
  for (const i of all) {
    const name = benchName(i);
    const add = (why: string) => out.push({ what: name, why });
    if (i.part.board) {
      add("bare metal below: stand it on spacers or put card under it, never loose in a metal box");
      if (i.part.board.radio.length || /radio|wifi/i.test(i.part.does))
        add("keep its aerial 15 mm away from metal and wires; a metal box shuts it in");
      if (i.part.pins.some((p) => (p.hazards ?? []).some((h) => h.kind === "reset")))
        add("nothing may press its reset button: no padding, no lid");
    }
    if (/nrf24|rfm95|hc05|gps/.test(i.part.id)) add("keep its aerial out of the metal box and off other wires");
    if (/bme280|bmp280|sht31|aht20|dht22|scd41|ccs811|sgp40|mq2|mhz19|pms/.test(i.part.id))
      add("it needs the air that it measures: holes beside it, and nothing warm below");
    if (/supply\/(li|lipo)/.test(i.part.id))
      add("nothing sharp or hot against the cell; it must come out without tools");
    if (/mlx90614|vl53|hc-sr04|ultrasonic|pir|apds|ldr|bh1750|veml/.test(i.part.id))
      add("nothing in front of it, not even clear plastic that it was not tried with");
  }
  for (const s of c.power.stages) {
    const heat = stageHeat(c.netlist, s, airOf(c.project).max_C);
    if (heat && heat.typ_W > WARM_W)
      out.push({
        what: c.netlist.instance(s.ref)?.label ?? s.ref,
        why: `gives off ${heat.typ_W.toFixed(1)} W: room above it, no plastic on it`,
      });
  }
  return out;
}

function connectorsOf(all: Instance[]): SolderBuild["connectors"] {
  return all.flatMap((i): SolderBuild["connectors"] => {
    const { header } = i.part.body;
    if (!header || isSupply(i)) return [];
    if (i.part.board && header.kind !== "leads")
      return i.part.board.headers.map((h) => ({
        of: benchName(i),
        what:
          header.kind === "female" ? `pin strip, ${count(h.count, "pin")}` : `socket strip, ${count(h.count, "pin")}`,
        n: 1,
      }));
    if (i.part.board || /^module\/(74hc|mcp3008|mcp4921|buffer-)/.test(i.part.id))
      return [{ of: benchName(i), what: `chip socket, ${i.part.pins.length} pins`, n: 1 }];
    if (header.kind === "male" && header.pitch_mm === PITCH_MM)
      return [{ of: benchName(i), what: `socket housing or strip, ${count(header.pins, "pin")}`, n: 1 }];
    return [];
  });
}

/** The same circuit soldered to keep: what to cut, how many joints, in which order, what to hold and what to keep clear. */
export function solderBuild(c: Circuit): SolderBuild {
  const all = [...c.netlist.expanded.instances.values()];
  const soldered = asSoldered(c);
  const atOnce = houseRule(c.project, "firstBuild") === "solder";
  return {
    carrier: carrierFor(all),
    cuts: cutList(soldered),
    joints: countJoints(soldered, atOnce),
    order: orderOf(all),
    strain: strainOf(c, all),
    clear: clearOf(c, all),
    // What is soldered at once has no sockets; what was tried on a breadboard first is plugged into them.
    connectors: atOnce ? [] : connectorsOf(all),
  };
}
