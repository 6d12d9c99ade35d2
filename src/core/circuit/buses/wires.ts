import { busOfPin } from "./instances";
import type { Circuit } from "..";
import { houseRule, joinEnd, partsCm, splitEnd, USUAL_CM } from "../../project";
import { linkBehind, type Net, type Wire } from "../netlist";
import { BREADBOARD_F, PIN_F, WIRE_F_PER_M } from "../formulas";

/** How long the signal wires of a part are, centimetres: the longest, where single ones have a length of their own. */
export function wireOf(c: Circuit, ref: string): number {
  const usual = partsCm(c.project, [ref]) ?? USUAL_CM;
  const own = c.project.links.flatMap((l) => {
    if (l.cm === undefined || ![l.from, l.to].some((e) => splitEnd(e).ref === ref)) return [];
    const kind = c.netlist.netOf(l.from)?.kind;
    return kind === "signal" || kind === "bus-line" ? [l.cm] : [];
  });
  return own.length ? Math.max(...own) : usual;
}

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
  const own = linkBehind(c.netlist, joinEnd(w.from), joinEnd(w.to))?.cm;
  if (own !== undefined) return own;
  const ends = [w.from.ref, w.to.ref].flatMap((r) => c.netlist.instance(r) ?? []);
  const loose = ends.find((i) => i.inserted);
  if (loose && !ends.some((i) => i.part.board)) return LEGS_CM;
  const far = ends.find((i) => !i.part.board);
  return (far && partsCm(c.project, [far.inserted?.by ?? far.ref])) ?? USUAL_CM;
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
  const planned = busOfPin(c, host, hostPin, kind);
  if (planned) return planned;
  const pin = c.netlist.instance(host)?.part.pins.find((p) => p.label === hostPin);
  const offer = pin?.offers?.find((o) => o.kind === kind && "role" in o && o.role === role);
  return offer && "bus" in offer ? offer.bus : null;
}

/** The clock that the person asked of a bus, hertz. */
export const askedClock = (c: Circuit, host: string | null, bus: string | null) =>
  c.project.buses.find((b) => b.host === host && b.bus === bus)?.clock_Hz ?? null;
