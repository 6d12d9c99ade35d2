import type { Slice } from "@/workers/view";

/** The nine stations in working order. Adding one is a file and a line here. */
export const STATIONS = [
  { id: "brief", name: "Brief" },
  { id: "parts", name: "Parts" },
  { id: "board", name: "Board" },
  { id: "pins", name: "Pins" },
  { id: "power", name: "Power and levels" },
  { id: "wiring", name: "Wiring" },
  { id: "firmware", name: "Firmware" },
  { id: "bench", name: "Bench" },
  { id: "handout", name: "Hand-out" },
] as const;
export type StationId = (typeof STATIONS)[number]["id"];
export const isStation = (s: string): s is StationId => STATIONS.some((x) => x.id === s);

/** What each station reads of the view, beyond what the frame shows: worked out only while it is open. */
export const STATION_SLICES: Record<StationId, readonly Slice[]> = {
  brief: [],
  parts: ["parts"],
  board: ["addresses"],
  pins: ["lattices", "diff"],
  power: ["limits", "levels", "rails"],
  wiring: ["rows", "parts", "bom", "wires", "tools", "nets"],
  firmware: ["constants", "withoutProgram"],
  bench: ["checks"],
  handout: ["cautions", "bom"],
};
