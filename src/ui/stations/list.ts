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
