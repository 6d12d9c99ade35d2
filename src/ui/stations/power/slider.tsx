"use client";
import { useAnswer } from "@/ui/shared/answer";
import { Slider } from "@/ui/shared/slider";
import { useProject } from "@/ui/state/project";

/** A share of a part's option, moved live: brightness, time awake. */
export function OptionSlider({
  part,
  option,
  name,
  value,
}: {
  part: string;
  option: string;
  name: string;
  value: number;
}) {
  const { edit } = useProject();
  const [now, setNow] = useAnswer(
    Math.round(value * 100),
    (v) =>
      void edit({ type: "setOption", ref: part, key: option, value: Math.max(v / 100, option === "duty" ? 0.001 : 0) }),
  );
  return (
    <div className="flex items-center gap-3">
      <span className="min-w-40">{name}</span>
      <Slider label={name} value={now} min={0} max={100} onChange={setNow} />
      <span className="num w-12 text-right">{now} %</span>
    </div>
  );
}
