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
  [/led/, "D"],
  [/diode/, "D"],
  [/resistor|ldr|thermistor|potentiometer/, "R"],
  [/electrolytic|capacitor/, "C"],
  [/button|toggle|switch|reed/, "SW"],
  [/npn|nmos/, "Q"],
];

/** The next free reference for a part: B1, M3, D2, SW1 …, numbered by the letters that its kind uses. */
export function nextRef(project: Project, partId: string): string {
  const kind = partKind(partId);
  const letters = (kind === "discrete" && DISCRETE.find(([re]) => re.test(partId))?.[1]) || PREFIX[kind] || "X";
  const used = new Set(project.parts.map((p) => p.ref));
  for (let n = 1; ; n++) if (!used.has(`${letters}${n}`)) return `${letters}${n}`;
}
