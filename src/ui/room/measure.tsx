"use client";
import { useMemo, useState } from "react";
import type { Stage as StageName } from "@/core/bench";
import { BenchConsole } from "@/ui/stations/bench/console";
import { Stage } from "@/ui/stations/bench/stage";
import { STATION_SLICES } from "@/ui/stations/list";
import { useProject, useSlices } from "@/ui/state/project";
import type { BenchLink } from "./use-bench";

const STAGES: { id: StageName; name: string; says: string }[] = [
  { id: "before power", name: "Before power", says: "Everything unplugged, meter on beep." },
  { id: "first power", name: "First power", says: "If anything gets hot or smells, unplug at once." },
  { id: "bring-up", name: "Bring-up", says: "Upload the bring-up program; give its lines below." },
];

/** The checks of a bench, one at a time; a reading that is off can be shown to the teacher at a press. */
export function Measure({ link }: { link: BenchLink }) {
  return useSlices(STATION_SLICES.bench) ? <Checks link={link} /> : <p className="text-soft">Opening…</p>;
}

function Checks({ link }: { link: BenchLink }) {
  const { view } = useProject();
  const [stage, setStage] = useState<StageName>("before power");
  const items = useMemo(() => view.checks.filter((c) => c.when === stage), [view.checks, stage]);
  const now = STAGES.find((s) => s.id === stage)!;
  return (
    <div>
      <div className="flex flex-wrap gap-2" role="group" aria-label="Stage">
        {STAGES.map((s) => (
          <button
            key={s.id}
            className={s.id === stage ? "btn-main" : "btn"}
            aria-pressed={s.id === stage}
            onClick={() => setStage(s.id)}
          >
            {s.name}
          </button>
        ))}
      </div>
      <Stage
        key={stage}
        items={items}
        says={now.says}
        aloud={false}
        findOut={() => link.tell({ kind: "hand", up: true, why: "a reading is off" })}
      >
        {stage === "bring-up" && <BenchConsole />}
      </Stage>
    </div>
  );
}
