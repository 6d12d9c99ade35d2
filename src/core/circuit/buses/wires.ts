import type { Circuit } from "..";
import { houseRule } from "../../project";
import type { Net, Wire } from "../netlist";
import { BREADBOARD_F, PIN_F, WIRE_F_PER_M } from "../formulas";

/** What a wire is long when nobody said, centimetres. */
export const USUAL_CM = 20;

/** How long the wires of a part are, centimetres. */
export const wireOf = (c: Circuit, ref: string) => c.project.parts.find((p) => p.ref === ref)?.wire_cm ?? USUAL_CM;

export interface LineLoad {
  pins_F: number;
  wires_F: number;
  breadboard_F: number;
  total_F: number;
  cm: number;
}

/** A loose part stands on the legs of the part that it belongs to: this much wire, centimetres. */
const LEGS_CM = 2;

/** How long one wire is: a part's own length to its board, next to nothing between a part and its loose parts. */
function wireLength(c: Circuit, w: Wire): number {
  const ends = [w.from.ref, w.to.ref].flatMap((r) => c.netlist.instance(r) ?? []);
  const loose = ends.find((i) => i.inserted);
  if (loose && !ends.some((i) => i.part.board)) return LEGS_CM;
  const far = ends.find((i) => !i.part.board);
  return far ? wireOf(c, far.inserted?.by ?? far.ref) : USUAL_CM;
}

/** Capacitance of a bus line: its pins by data sheet (10 pF where silent), its wires, the breadboard rows. Farads. */
export function lineLoad(c: Circuit, net: Net): LineLoad {
  const pins = net.ends.filter((e) => e.def.role === "signal");
  const pins_F = pins.reduce((s, e) => s + (c.netlist.level(e.ref, e.pin)?.C_pF ?? PIN_F * 1e12) * 1e-12, 0);
  const wires = c.netlist.wires.filter((w) => net.ends.some((e) => e.ref === w.from.ref && e.pin === w.from.pin));
  const cm = wires.reduce((s, w) => s + wireLength(c, w), 0);
  const rows = houseRule(c.project, "firstBuild") === "breadboard" ? pins.length : 0;
  const wires_F = (cm / 100) * WIRE_F_PER_M;
  const breadboard_F = rows * BREADBOARD_F;
  return { pins_F, wires_F, breadboard_F, total_F: pins_F + wires_F + breadboard_F, cm };
}

/** The bus instance that a host pin belongs to when it serves a need, such as `i2c0`. */
export function busAt(c: Circuit, host: string, hostPin: string, kind: string, role: string | undefined) {
  const pin = c.netlist.instance(host)?.part.pins.find((p) => p.label === hostPin);
  const offer = pin?.offers?.find((o) => o.kind === kind && "role" in o && o.role === role);
  return offer && "bus" in offer ? offer.bus : null;
}

/** The clock that the person asked of a bus, hertz. */
export const askedClock = (c: Circuit, host: string | null, bus: string | null) =>
  c.project.buses.find((b) => b.host === host && b.bus === bus)?.clock_Hz ?? null;
