"use client";
import { usePathname, useSearchParams } from "next/navigation";
import { later } from "@/ui/shared/later";
import { StationTitle } from "@/ui/shared/title";
import { Tabs } from "@/ui/shared/tabs";
import { useProject } from "@/ui/state/project";
import { Supplies } from "./supplies";
import { usePower } from "./use-power";

const Levels = later(() => import("./levels").then((m) => m.Levels));
const Buses = later(() => import("./buses").then((m) => m.Buses));
const Hookups = later(() => import("./hookups").then((m) => m.Hookups));

const TABS = [
  { id: "power", name: "Power" },
  { id: "levels", name: "Levels" },
  { id: "buses", name: "Buses" },
  { id: "hookups", name: "Hook-ups" },
] as const;
type Tab = (typeof TABS)[number]["id"];
const isTab = (t: string | null): t is Tab => TABS.some((x) => x.id === t);

/** Power and levels: the flow from source to load, every driver against every receiver, the buses, and the small sums. */
export function Power() {
  const { view } = useProject();
  const power = usePower();
  const path = usePathname();
  const asked = useSearchParams().get("show");
  const tab: Tab = isTab(asked) ? asked : "power";
  const counts: Record<Tab, number> = {
    power: view.limits.length,
    levels: view.levels.length,
    buses: power
      ? power.i2c.length + power.spi.length + power.uart.length + power.chains.length + power.oneWires.length
      : 0,
    hookups: power?.hookups.length ?? 0,
  };
  return (
    <>
      <StationTitle
        name="Power and levels"
        says="Worst case everywhere: lowest supply, highest load, widest tolerance."
      />
      <Tabs
        label="Power views"
        tabs={TABS.map((t) => ({ ...t, count: counts[t.id] }))}
        tab={tab}
        go={(t) => window.history.replaceState(null, "", `${path}${t === "power" ? "" : `?show=${t}`}`)}
      >
        {!power ? (
          <p className="mt-4 text-soft">Adding up…</p>
        ) : (
          <div className="mt-3">
            {tab === "power" && <Supplies power={power} />}
            {tab === "levels" && <Levels power={power} />}
            {tab === "buses" && <Buses power={power} />}
            {tab === "hookups" && <Hookups list={power.hookups} />}
          </div>
        )}
      </Tabs>
    </>
  );
}
