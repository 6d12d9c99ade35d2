"use client";
import { useEffect, useState } from "react";
import type { SleepView } from "@/core/firmware/sleep/view";
import { span } from "@/core/quantity/span";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { howLong, mA } from "./power/words";

const ROUNDS_S = [30, 60, 300, 600, 900, 1800, 3600, 7200, 21_600, 43_200, 86_400];
const AWAKE_S = [2, 3, 5, 10, 20, 30, 60, 120, 300];

/** Those that are offered, with the one that is chosen. */
const offered = (list: readonly number[], chosen: number | undefined) =>
  [...new Set([...list, ...(chosen === undefined ? [] : [chosen])])].sort((a, b) => a - b);

function Board({ v, named }: { v: SleepView; named: boolean }) {
  const { edit } = useProject();
  const set = (every_s: number, awake_s: number) =>
    void edit({ type: "setSleep", ref: v.host, sleep: every_s ? { every_s, awake_s } : null });
  const { sleep } = v;
  const label = (what: string) => (named ? `${what}, ${v.label}` : what);
  if (v.why !== null && !sleep)
    return (
      <p className="mt-1 text-sm text-soft">
        {named && `${v.label}: `}It stays awake: {v.why}.
      </p>
    );
  return (
    <div className="mt-1">
      {named && <h3 className="num text-sm">{v.label}</h3>}
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <Select
          label={label("A round takes")}
          value={String(sleep?.every_s ?? 0)}
          options={[
            { value: "0", name: "never: always awake" },
            ...offered(
              ROUNDS_S.filter((s) => s > v.needs_s),
              sleep?.every_s,
            ).map((s) => ({
              value: String(s),
              name: `every ${span(s)}`,
            })),
          ]}
          onChange={(x) => set(Number(x), Math.min(sleep?.awake_s ?? v.needs_s, Number(x) - 1))}
        />
        {sleep && (
          <Select
            label={label("Awake for")}
            value={String(sleep.awake_s)}
            options={offered(
              [v.needs_s, ...AWAKE_S.filter((s) => s > v.needs_s && s < sleep.every_s)],
              sleep.awake_s,
            ).map((s) => ({ value: String(s), name: `awake for ${span(s)}` }))}
            onChange={(x) => set(sleep.every_s, Number(x))}
          />
        )}
      </div>
      <ul className="text-sm text-soft">
        {sleep && v.why !== null && <li className="text-risk">It stays awake all the same: {v.why}.</li>}
        {sleep && v.why === null && (
          <li>
            Programs that sleep: {v.targets.map((t) => t.name).join(", ")}.
            {v.needsBy && ` ${v.needsBy} needs the longest, ${span(v.needs_s)} with the lines on the console.`}
          </li>
        )}
        {sleep &&
          v.why === null &&
          v.cells.map((b) => (
            <li key={b.label}>
              {b.label} gives {mA(b.average_mA)} on average and lasts {howLong(b.hours.min)} to {howLong(b.hours.max)}.
            </li>
          ))}
      </ul>
    </div>
  );
}

/** Sleep between readings: for every board how often it wakes, for how long, and what its cells make of it. */
export function Sleep() {
  const { project } = useProject();
  const [views, setViews] = useState<SleepView[]>([]);
  useEffect(() => {
    let gone = false;
    void core()
      .sleeps(project)
      .then((v) => !gone && setViews(v));
    return () => {
      gone = true;
    };
  }, [project]);
  if (!views.length) return null;
  return (
    <section aria-label="Sleep between readings" className="mb-4 border-b border-line pb-3">
      <h2 className="font-bold">Sleep between readings</h2>
      {views.map((v) => (
        <Board key={v.host} v={v} named={views.length > 1} />
      ))}
    </section>
  );
}
