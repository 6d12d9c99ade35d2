import type { Instance } from "../../circuit/netlist";

/** Soldered from low to high, so that each part is pressed down by the table when the carrier is turned over. */
const GROUPS: { test: RegExp; group: string; mm: number; why: string }[] = [
  { test: /resistor$|diode-/, group: "resistors and diodes", mm: 2.5, why: "they lie flat; mind the ring of a diode" },
  {
    test: /^chip\/|74hc|mcp3008|mcp4921|buffer-|optocoupler/,
    group: "chip sockets",
    mm: 5,
    why: "sockets, not the chips: heat kills, and a chip can be changed",
  },
  { test: /discrete\/capacitor$/, group: "small capacitors", mm: 6, why: "close to the supply pins that they serve" },
  {
    test: /button|toggle|footswitch|reed|potentiometer/,
    group: "buttons and switches",
    mm: 7,
    why: "flat on the board, or they break at the legs",
  },
  {
    test: /npn-|nmos-|ds18b20|a3144|ir-receiver/,
    group: "transistors and sensors on three legs",
    mm: 9,
    why: "read the legs again; ten seconds of heat at most",
  },
  { test: /led-|ldr|thermistor/, group: "lights", mm: 10, why: "long leg at the plus; a spacer keeps them level" },
  {
    test: /electrolytic/,
    group: "electrolytic capacitors",
    mm: 13,
    why: "stripe to minus: turned round they can burst",
  },
  {
    test: /^connector\/|screw|relay|solenoid/,
    group: "connectors and relays",
    mm: 16,
    why: "they take force: solder every leg",
  },
];
const LAST = { group: "modules and boards", mm: 20, why: "on socket strips, so that they come off again for testing" };

const FINE = {
  group: "fine parts onto their adapters",
  mm: 1,
  why: "first, on the bare table: flux, tack one pin, look at it with the magnifier, then the others; no bridge between neighbours",
};
/** Pads closer than this are no work for wires: the part goes onto an adapter board with pins, millimetres. */
const FINE_MM = 1.6;

/** Whether a part has bare pads so close together that it needs an adapter board. */
export function isFinePitch(i: Instance): boolean {
  const { header } = i.part.body;
  return !i.part.board && header?.kind === "pads" && header.pitch_mm < FINE_MM;
}

/** In which group a part is soldered, how high it stands, and what to mind; null for what stays outside. */
export function heightOf(i: Instance): { group: string; mm: number; why: string } | null {
  if (i.part.id.startsWith("supply/")) return null;
  if (isFinePitch(i)) return FINE;
  const known = GROUPS.find((g) => g.test.test(i.part.id));
  if (known) return known;
  const kind = i.part.body.header?.kind;
  return i.part.board || kind === "male" || kind === "pads" || kind === "female" ? LAST : null;
}
