import { partKind } from "../../parts/catalogue";
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
function contact(inst: Instance) {
  const kind = inst.part.body.header?.kind ?? "male";
  if (inst.part.board && kind === "pads") return CONTACTS.male;
  // Chips and transistors stand in rows of a breadboard: a wire goes into the row beside the leg.
  if (kind === "leads" && inst.part.pins.length > 2) return { ...CONTACTS.leads, end: "pin" };
  return CONTACTS[kind];
}

/** What the wire's end at this part is: pin, socket, bare, screw (bare, under a screw), leg or plug. */
export const endKind = (inst: Instance): string => contact(inst).end;

/** How many wires one contact of this part takes; where its wires are soldered on first, the pad below is what counts. */
export const takes = (inst: Instance): number =>
  inst.part.body.solder === "wires" ? Math.max(contact(inst).takes, CONTACTS.pads.takes) : contact(inst).takes;

/** A loose part whose own two legs are its wires. */
export const isLead = (i: Instance | undefined): boolean =>
  i?.part.body.header?.kind === "leads" && i.part.pins.length === 2;

export const isSupply = (i: Instance | undefined): boolean => i !== undefined && partKind(i.part.id) === "supply";
