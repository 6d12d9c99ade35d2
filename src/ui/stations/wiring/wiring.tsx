"use client";
import { usePathname, useSearchParams } from "next/navigation";
import { Download } from "@/ui/shared/download";
import { later } from "@/ui/shared/later";
import { Tabs } from "@/ui/shared/tabs";
import { StationTitle } from "@/ui/shared/title";
import { useProject } from "@/ui/state/project";
import { RunSheet } from "./run-sheet";

type TabId = "sheet" | "wires" | "board" | "solder" | "lists" | "prints" | "compare";
const TABS: { id: TabId; name: string }[] = [
  { id: "sheet", name: "Run sheet" },
  { id: "wires", name: "Wires" },
  { id: "board", name: "Breadboard" },
  { id: "solder", name: "Solder build" },
  { id: "lists", name: "Lists" },
  { id: "prints", name: "Prints and tags" },
  { id: "compare", name: "Rewire" },
];
const VIEWS: Record<TabId, React.ComponentType> = {
  sheet: RunSheet,
  wires: later(() => import("./wires/wires").then((m) => m.Wires)),
  board: later(() => import("./breadboard").then((m) => m.Breadboard)),
  solder: later(() => import("./solder").then((m) => m.Solder)),
  lists: later(() => import("./lists").then((m) => m.Lists)),
  prints: later(() => import("./prints").then((m) => m.Prints)),
  compare: later(() => import("./compare").then((m) => m.Compare)),
};

/** Wiring: everything that a person builds from, and what the hands need for it. */
export function Wiring() {
  const { view } = useProject();
  const path = usePathname();
  const asked = useSearchParams().get("show");
  const tab: TabId = TABS.find((t) => t.id === asked)?.id ?? "sheet";
  const setTab = (t: TabId) => window.history.replaceState(null, "", t === "sheet" ? path : `${path}?show=${t}`);
  const wires = view.rows.filter((r) => r.kind === "wire" || r.kind === "leg").length;
  const View = VIEWS[tab];
  return (
    <>
      <StationTitle
        name="Wiring"
        says={wires ? `${wires} wires and legs, in an order that is safe to build.` : "Nothing to wire yet."}
      >
        <Download path="plan">Whole plan (ZIP)</Download>
      </StationTitle>
      {view.verdict.counts.stop > 0 && (
        <p className="mt-2 border-l-4 border-stop pl-3 font-bold text-stop">
          Do not power this plan: read the stops in the ledger first.
        </p>
      )}
      <Tabs<TabId> label="Views of the wiring" tabs={TABS} tab={tab} go={setTab}>
        <View />
      </Tabs>
    </>
  );
}
