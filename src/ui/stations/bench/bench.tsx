"use client";
import { usePathname, useSearchParams } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { StationTitle } from "@/ui/shared/title";
import { Switch } from "@/ui/shared/switch";
import { Tabs } from "@/ui/shared/tabs";
import { useProject } from "@/ui/state/project";
import { canSpeak } from "./aloud";
import { BenchConsole } from "./console";
import { later } from "@/ui/shared/later";
import { useReadings } from "./readings";
import { Stage } from "./stage";

const Wrong = later(() => import("./wrong").then((m) => m.Wrong));
const Log = later(() => import("./log").then((m) => m.Log));
const CaptureView = later(() => import("./capture").then((m) => m.CaptureView));
const Practice = later(() => import("./practice").then((m) => m.Practice));

type TabId = "before" | "power" | "bring-up" | "wrong" | "log" | "capture" | "practice";

const STAGE_OF: Partial<Record<TabId, string>> = {
  before: "before power",
  power: "first power",
  "bring-up": "bring-up",
};
const SAYS: Partial<Record<TabId, string>> = {
  before: "Everything unplugged, meter on beep. What could do harm comes first; each wire is measured only once.",
  power:
    "Modules that can be pulled are pulled out first: measure the rails, then push them in one by one. If anything gets hot or smells, unplug at once.",
  "bring-up": "Upload the bring-up program from Firmware. Its lines prove the parts, or ask what you see.",
};

/** Bench: before power, first power, bring-up; what is wrong; what is on record. */
export function Bench() {
  const { view, project } = useProject();
  const { stateOf } = useReadings();
  const { checks } = view;
  const path = usePathname();
  const asked = useSearchParams().get("show");
  const [aloud, setAloud] = useState(false);
  const [speaks, setSpeaks] = useState(false);
  useEffect(() => setSpeaks(canSpeak()), []);
  const left = (t: TabId) => checks.filter((c) => c.when === STAGE_OF[t] && stateOf(c) === "open").length;
  const off = checks.filter((c) => stateOf(c) === "off").length;
  const logged = project.bench.filter((b) => b.list === "log").length;
  const tabs: { id: TabId; name: string; count?: number }[] = [
    { id: "before", name: "Before power", count: left("before") },
    { id: "power", name: "First power", count: left("power") },
    { id: "bring-up", name: "Bring-up", count: left("bring-up") },
    { id: "wrong", name: "What is wrong", count: off },
    { id: "log", name: "Log", count: logged },
    { id: "capture", name: "Capture" },
    { id: "practice", name: "Practice" },
  ];
  const tab: TabId = tabs.find((t) => t.id === asked)?.id ?? "before";
  const go = (t: TabId) => window.history.replaceState(null, "", t === "before" ? path : `${path}?show=${t}`);
  const items = useMemo(() => checks.filter((c) => c.when === STAGE_OF[tab]), [checks, tab]);
  const stop = view.verdict.counts.stop > 0;
  return (
    <>
      <StationTitle name="Bench" says="One check at a time. What a reading rules out is never asked again.">
        {speaks && (
          <Switch on={aloud} turn={setAloud}>
            Read aloud
          </Switch>
        )}
      </StationTitle>
      {stop && (
        <p className="mt-2 border-l-4 border-stop pl-3 font-bold text-stop">
          Do not power this plan: read the stops in the ledger first.
        </p>
      )}
      {!checks.length ? (
        <p className="mt-4">No wires yet, so nothing to measure. Plan the pins first.</p>
      ) : (
        <Tabs<TabId> label="Stages of the bench" tabs={tabs} tab={tab} go={go}>
          {tab === "wrong" ? (
            <Wrong />
          ) : tab === "log" ? (
            <Log />
          ) : tab === "capture" ? (
            <CaptureView />
          ) : tab === "practice" ? (
            <Practice />
          ) : tab === "power" && (stop || left("before") > 0) ? (
            <>
              <p className="mt-3 border-l-4 border-risk pl-3" data-testid="not-yet">
                {stop
                  ? "The plan has stops: nothing is powered before they are mended."
                  : `${left("before")} checks before power are still open: power comes after them.`}
              </p>
              {!stop && <Stage key={tab} items={items} says={SAYS[tab]} aloud={aloud} findOut={() => go("wrong")} />}
            </>
          ) : (
            <Stage key={tab} items={items} says={SAYS[tab]} aloud={aloud} findOut={() => go("wrong")}>
              {tab === "bring-up" && <BenchConsole />}
            </Stage>
          )}
        </Tabs>
      )}
    </>
  );
}
