import type { Instance } from "../../circuit/netlist";
import type { PhaseId } from "./phases";

/** Why a step comes now, for the steps of a phase that have nothing more particular to say. */
export const WHY: Record<PhaseId, string> = {
  prepare: "A wire that slips can't hurt anything while nothing is powered.",
  solder: "Soldering near a finished build melts wires and drops solder into sockets.",
  place: "Turned round now it costs a second; found after power it costs the part.",
  ground: "Every signal is measured against ground; a part without it feeds itself through its signal wires.",
  supply: "The rail is still dead: a slip here does nothing.",
  bus: "The same lines visit every part, so they are easiest to follow together.",
  signal: "Supplies are in place: each signal is one wire that can be counted off.",
  load: "Heavy wires are stiff and pull at the others, so they come when those are in.",
  source: "This is what brings the power: everything else must be finished and checked.",
};

/** What to look at before going on, for the wires of a phase. */
export const CHECK: Record<PhaseId, string> = {
  prepare: "No light is on anywhere.",
  solder: "Each joint shines and is round; no two touch. The iron is back in its stand.",
  place: "Look from above and compare with the drawing.",
  ground: "Tug gently at both ends. The two ends beep.",
  supply: "Tug gently. The two ends beep, this rail against ground does not.",
  bus: "Read both printed names again: swapped bus lines are the commonest mistake.",
  signal: "Read both printed names again, then tug gently.",
  load: "Tug firmly: a loose heavy wire gets hot.",
  source: "Every box above is ticked, and every check before power is done.",
};

/** The solder work that a part needs before it can be wired; none when it comes ready. Soldered at once, no pins go into pads: the wires do. */
export function solderWork(i: Instance, soldered: boolean): string | null {
  const { solder, header } = i.part.body;
  if (soldered && solder === "headers")
    return "no header pins: its wires go straight into its pads, each from the side away from the parts.";
  const n = i.part.pins.filter((p) => p.role !== "cable" && p.role !== "nc").length;
  const pins = header?.kind === "pads" && i.part.board ? n : (header?.pins ?? n);
  if (solder === "headers")
    return `solder ${pins} header pins to it, long ends down; stuck in a breadboard meanwhile, they stay straight.`;
  if (solder === "wires")
    return `solder its ${pins} wires on, and hold them with a tie or a drop of glue: at the joint they break.`;
  if (solder === "leads") return `solder it to a carrier or to leads: its pads are too close for a breadboard.`;
  return null;
}

/** Which way round a part goes, in words; null when it does not matter. */
export function wayRound(i: Instance): string | null {
  const said = i.part.body.orientation;
  return said && said !== "Either way round." ? said : null;
}
