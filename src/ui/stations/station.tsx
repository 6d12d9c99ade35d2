"use client";
import dynamic from "next/dynamic";
import { usePathname } from "next/navigation";
import { useProject, useSlices } from "@/ui/state/project";
import { isStation, STATION_SLICES, type StationId } from "./list";

const loading = () => <p className="p-6 text-soft">Opening…</p>;
type Loaded = Promise<React.ComponentType>;
/** Each station's script is fetched when somebody turns to it. */
const SCRIPTS: Record<StationId, () => Loaded> = {
  brief: () => import("./brief/brief").then((m) => m.Brief),
  parts: () => import("./parts/parts").then((m) => m.Parts),
  board: () => import("./board/board").then((m) => m.Board),
  pins: () => import("./pins/pins").then((m) => m.Pins),
  power: () => import("./power/power").then((m) => m.Power),
  wiring: () => import("./wiring/wiring").then((m) => m.Wiring),
  firmware: () => import("./firmware").then((m) => m.Firmware),
  bench: () => import("./bench/bench").then((m) => m.Bench),
  handout: () => import("./handout/handout").then((m) => m.Handout),
};
const view = (id: StationId) => dynamic(SCRIPTS[id], { loading });
const VIEWS: Record<StationId, React.ComponentType> = {
  brief: view("brief"),
  parts: view("parts"),
  board: view("board"),
  pins: view("pins"),
  power: view("power"),
  wiring: view("wiring"),
  firmware: view("firmware"),
  bench: view("bench"),
  handout: view("handout"),
};

/** Fetches a station's script ahead: for whoever points at its name. */
export const fetchAhead = (id: StationId) => void SCRIPTS[id]().catch(() => undefined);

/** The station named in the address, once the project is there. Stations change without asking the server. */
export function StationView({ name }: { name: StationId }) {
  const { ready } = useProject();
  const asked = usePathname().split("/").pop() ?? "";
  const id = isStation(asked) ? asked : name;
  const here = useSlices(STATION_SLICES[id]);
  const View = VIEWS[id];
  return ready && here ? <View key={id} /> : loading();
}
