"use client";
import { useEffect, useState } from "react";
import type { LevelId } from "@/core/bench/trainer/trainer";
import { Game } from "@/ui/stations/bench/practice";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import type { PracticeEnd, PracticeStart } from "@/workers/stations/practice";
import type { BenchLink } from "./use-bench";

/** The fault that was dealt to this bench, hidden in the simulated build. */
export function Fault({ link }: { link: BenchLink }) {
  const { project } = useProject();
  const [start, setStart] = useState<PracticeStart | null>(null);
  const [none, setNone] = useState(false);
  const [first] = useState(project);
  const dealt = link.control.fault;
  const [level, seed] = [dealt?.level, dealt?.seed];
  useEffect(() => {
    setStart(null);
    setNone(false);
    if (level === undefined || seed === undefined) return;
    void core()
      .practice(first, level as LevelId, seed)
      .then((s) => (s ? setStart(s) : setNone(true)));
  }, [first, level, seed]);
  if (!dealt) return <p className="text-soft">No fault is dealt to this bench.</p>;
  if (none) return <p>This plan has nothing for that level. Tell your teacher.</p>;
  if (!start) return <p className="text-soft">Hiding it…</p>;
  const ended = async (e: PracticeEnd) => {
    link.tell({
      kind: "fault",
      level: dealt.level,
      seed: dealt.seed,
      points: e.score.points,
      measured: e.score.measured,
      minutes: Number(e.minutes.toFixed(1)),
      found: e.score.points > 0,
    });
    return "";
  };
  return <Game key={`${dealt.level} ${dealt.seed}`} start={start} again={dealt.seed} ended={ended} />;
}
