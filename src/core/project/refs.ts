import { partKind } from "../parts/catalogue";
import type { Project } from "./schema";

const PREFIX: Record<string, string> = {
  board: "B",
  chip: "U",
  module: "M",
  supply: "S",
  connector: "J",
  discrete: "X",
};
const DISCRETE: [RegExp, string][] = [
  // Never a letter that boards print before a number: D8 and A0 are pins.
  [/led/, "LED"],
  [/diode/, "DIO"],
  [/potentiometer/, "POT"],
  [/ldr|thermistor/, "RS"],
  [/resistor/, "R"],
  [/electrolytic|capacitor/, "C"],
  [/button|toggle|switch|reed/, "SW"],
  [/npn|nmos/, "Q"],
];

/** The next free reference for a part: B1, M3, LED2, SW1 …, numbered by the letters that its kind uses. */
export function nextRef(project: Project, partId: string): string {
  const kind = partKind(partId);
  const letters = (kind === "discrete" && DISCRETE.find(([re]) => re.test(partId))?.[1]) || PREFIX[kind] || "X";
  const used = new Set(project.parts.map((p) => p.ref));
  for (let n = 1; ; n++) if (!used.has(`${letters}${n}`)) return `${letters}${n}`;
}
