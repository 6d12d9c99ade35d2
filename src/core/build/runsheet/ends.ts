import { findPin, partKind } from "../../parts/catalogue";
import type { Instance } from "../../circuit/netlist";

type HeaderKind = NonNullable<Instance["part"]["body"]["header"]>["kind"];

/** What a wire must end in to go there, and how many wires a contact takes before it needs a splice. */
const CONTACTS: Record<HeaderKind, { end: string; takes: number }> = {
  male: { end: "socket", takes: 1 },
  female: { end: "pin", takes: 1 },
  pads: { end: "bare", takes: 2 },
  leads: { end: "leg", takes: 3 },
  wires: { end: "bare", takes: 1 },
  screw: { end: "screw", takes: 2 },
  plug: { end: "plug", takes: 1 },
};
/** Boards come with headers soldered on, or get them: their pads are pins by the time of wiring. */
function contact(inst: Instance, pin?: string) {
  const own = pin === undefined ? undefined : findPin(inst.part, pin)?.contact;
  if (own) return CONTACTS[own];
  const kind = inst.part.body.header?.kind ?? "male";
  if (inst.part.board && kind === "pads") return CONTACTS.male;
  // Chips and transistors stand in rows of a breadboard: a wire goes into the row beside the leg.
  if (kind === "leads" && inst.part.pins.length > 2) return { ...CONTACTS.leads, end: "pin" };
  return CONTACTS[kind];
}

/** The tip of a part's own leg: no wire is laid there. */
export const OWN_LEG = "own leg";

/**
 * What the wire's end at this pin is: pin, socket, bare, screw (bare, under a screw), leg or plug. Soldered at once, a wire goes
 * bare into its pad where else a socket would sit on a pin.
 */
export function endKind(inst: Instance, pin: string, soldered: boolean): string {
  const { end } = contact(inst, pin);
  return soldered && (end === "socket" || end === "pin") ? "bare" : end;
}

/** Whether a leg goes straight into a contact of this kind: not onto a pin, and not into a plug. */
export const takesLeg = (end: string): boolean => end !== "socket" && end !== "plug";

/** How many wires one contact of this part takes; where its wires are soldered on first, the pad below is what counts. */
export const takes = (inst: Instance, pin?: string): number =>
  inst.part.body.solder === "wires" && !(pin && findPin(inst.part, pin)?.contact)
    ? Math.max(contact(inst, pin).takes, CONTACTS.pads.takes)
    : contact(inst, pin).takes;

/** A loose part whose own two legs are its wires. */
export const isLead = (i: Instance | undefined): boolean =>
  i?.part.body.header?.kind === "leads" && i.part.pins.length === 2;

export const isSupply = (i: Instance | undefined): boolean => i !== undefined && partKind(i.part.id) === "supply";
