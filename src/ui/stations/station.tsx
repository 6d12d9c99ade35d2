"use client";
import dynamic from "next/dynamic";
import { useProject, useSlices } from "@/ui/state/project";
import { STATION_SLICES, type StationId } from "./list";

const loading = () => <p className="p-6 text-soft">Opening…</p>;
const VIEWS: Record<StationId, React.ComponentType> = {
  brief: dynamic(() => import("./brief/brief").then((m) => m.Brief), { loading }),
  parts: dynamic(() => import("./parts/parts").then((m) => m.Parts), { loading }),
  board: dynamic(() => import("./board/board").then((m) => m.Board), { loading }),
  pins: dynamic(() => import("./pins/pins").then((m) => m.Pins), { loading }),
  power: dynamic(() => import("./power/power").then((m) => m.Power), { loading }),
  wiring: dynamic(() => import("./wiring/wiring").then((m) => m.Wiring), { loading }),
  firmware: dynamic(() => import("./firmware").then((m) => m.Firmware), { loading }),
  bench: dynamic(() => import("./bench").then((m) => m.Bench), { loading }),
  handout: dynamic(() => import("./handout").then((m) => m.Handout), { loading }),
};

/** The station named in the address, once the project is there. */
export function StationView({ name }: { name: StationId }) {
  const { ready } = useProject();
  const here = useSlices(STATION_SLICES[name]);
  const View = VIEWS[name];
  return ready && here ? <View /> : loading();
}
