import { catalogue, make, planned } from "../../testing";
import { applyEdit, type BasicEdit, type Project } from "../../project";
import type { Severity } from "../types";

/** A mistake that was planted on purpose, and the same project with the mistake just not made. */
export interface Case {
  rule: string;
  severity: Severity;
  says: string;
  bad: () => Project;
  near: () => Project;
  /** A fix of the finding that must leave nothing above `note`. */
  fix?: string;
  /** Other findings above `note` that the same mistake makes, with the reason in the name. */
  also?: string[];
}

export type Links = [string, string][];
export const AVR = { ref: "B1", part: "board/atmega328p-long" };
export const RP = { ref: "B1", part: "board/rp2040-forty" };
export const ESP = { ref: "B1", part: "board/esp32-thirtyeight" };
export const USB = { ref: "S1", part: "supply/usb-port" };
export const CHARGER = { ref: "S1", part: "supply/usb-charger" };
export const CABLE: [string, string] = ["S1.USB", "B1.USB"];
export const ADAPTER5 = { ref: "S2", part: "supply/adapter-5v-2a" };
export const ADAPTER12 = { ref: "S2", part: "supply/adapter-12v-2a" };
export const part = (ref: string, id: string, options: object = {}, companions: object = {}) => ({
  ref,
  part: id,
  ...(Object.keys(options).length && { options }),
  ...(Object.keys(companions).length && { companions }),
});
export const led = (ref: string, ohm: number | null, id = "discrete/led-red") =>
  part(ref, id, {}, { seriesResistor: ohm === null ? null : { ohm } });
export const R = (ref: string, resistance_ohm: number) => part(ref, "discrete/resistor", { resistance_ohm });

/** The planned project with edits on top: how a mistake gets into a sound plan. */
export const changed = (p: Project, ...edits: BasicEdit[]) => edits.reduce((q, e) => applyEdit(q, e, catalogue), p);
export const drop = (from: string, to: string): BasicEdit => ({ type: "removeLink", from, to });
export const wire = (from: string, to: string): BasicEdit => ({ type: "addLink", link: { from, to } });
/** The other end of the planned link at an endpoint. */
export const farEnd = (p: Project, end: string) => {
  const l = p.links.find((x) => x.from === end || x.to === end)!;
  return l.from === end ? l.to : l.from;
};
export const moved = (p: Project, end: string, to: string): Project =>
  changed(p, drop(end, farEnd(p, end)), wire(end, to));
export { make, planned };
