"use client";
import { useState } from "react";
import { PHASES, type RunRow } from "@/core/wiring/runsheet";
import { Download } from "@/ui/shared/download";
import { saveFile } from "@/ui/shared/save-file";
import { Tick } from "@/ui/shared/tick";
import { StationTitle } from "@/ui/shared/title";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { Loom } from "./loom";

const SWATCH: Record<string, string> = {
  black: "#1d1b18",
  red: "#b3261e",
  orange: "#c4620a",
  yellow: "#d0ac00",
  green: "#2d7a3a",
  blue: "#2457a6",
  violet: "#7a3f98",
  grey: "#8b877f",
  white: "#f4f0e6",
  brown: "#7a4a21",
};

function Wire({
  row,
  on,
  done,
  pick,
  tick,
}: {
  row: RunRow;
  on: boolean;
  done: boolean;
  pick(): void;
  tick(v: boolean): void;
}) {
  return (
    <li className={`flex items-stretch border-b border-line ${on ? "bg-wash" : ""}`} data-testid="run-row">
      <label className="flex w-11 shrink-0 items-center justify-center">
        <Tick checked={done} says={`Step ${row.step} done`} change={tick} />
      </label>
      <button
        className={`min-w-0 grow py-1.5 pr-2 text-left ${done ? "text-soft" : ""}`}
        onClick={pick}
        aria-pressed={on}
      >
        <span className="num mr-2 text-soft">{row.step}</span>
        {row.kind === "look" ? (
          row.note
        ) : (
          <>
            {row.colour && (
              <span className="mr-2 inline-flex items-center gap-1">
                <svg width="14" height="14" aria-hidden>
                  <rect
                    x="0.5"
                    y="0.5"
                    width="13"
                    height="13"
                    fill={SWATCH[row.colour] ?? "none"}
                    stroke="currentColor"
                  />
                </svg>
                {row.colour}
              </span>
            )}
            <strong>{row.net}</strong>
            <span className="block">
              <span className="num">{row.from}</span> <span className="text-soft">to</span>{" "}
              <span className="num">{row.to}</span>
              <span className="num float-right text-sm text-soft">
                {row.kind === "cable" ? "cable" : `${row.length_cm} cm, ${row.endA} to ${row.endB}`}
              </span>
            </span>
            <span className="block text-sm text-soft">
              {[row.fromWords, row.toWords].filter((w) => !/(rail \([+−]\)|splice)$/.test(w)).join(" → ")}
            </span>
            {row.note && on && <span className="block text-sm">{row.note}</span>}
          </>
        )}
      </button>
    </li>
  );
}

/** Wiring: one wire a row in a safe order, the loom beside it with the current wire lit. */
export function Wiring() {
  const { view, project, edit } = useProject();
  const [current, setCurrent] = useState<string | null>(null);
  const done = new Set(project.bench.filter((b) => b.list === "wires" && b.done).map((b) => b.id));
  const next = view.rows.find((r) => !done.has(r.id));
  const row = view.rows.find((r) => r.id === current) ?? next;
  const tick = (r: RunRow, v: boolean) => {
    setCurrent(null);
    void edit({ type: "tick", list: "wires", id: r.id, done: v, at: new Date().toISOString() });
  };
  const stop = view.verdict.counts.stop > 0;
  return (
    <>
      <StationTitle
        name="Wiring"
        says={
          next
            ? `Step ${next.step} of ${view.rows.length} is next.`
            : view.rows.length
              ? "Every wire is ticked."
              : "Nothing to wire yet."
        }
      >
        <button
          className="btn"
          onClick={() =>
            void core()
              .svg(project)
              .then((svg) => saveFile("plan.svg", svg, "image/svg+xml"))
          }
        >
          Drawing (SVG)
        </button>
        <Download path="plan">Whole plan (ZIP)</Download>
      </StationTitle>
      {stop && (
        <p className="mt-2 border-l-4 border-stop pl-3 font-bold text-stop">
          Do not power this plan: read the stops in the ledger first.
        </p>
      )}
      <div className="mt-2 grid gap-x-6 gap-y-4 xl:grid-cols-[400px_1fr]">
        <section aria-label="Run sheet" className="xl:max-h-[calc(100dvh-10rem)] xl:overflow-auto">
          {PHASES.map((ph) => {
            const rows = view.rows.filter((r) => r.phase === ph.id);
            return rows.length ? (
              <div key={ph.id} className="mb-2">
                <h2 className="border-b border-ink pt-1">
                  {ph.title} <span className="font-normal text-soft">{ph.why}</span>
                </h2>
                <ul>
                  {rows.map((r) => (
                    <Wire
                      key={r.id}
                      row={r}
                      on={r.id === row?.id}
                      done={done.has(r.id)}
                      pick={() => setCurrent(r.id)}
                      tick={(v) => tick(r, v)}
                    />
                  ))}
                </ul>
              </div>
            ) : null;
          })}
        </section>
        <section aria-label="Loom drawing" className="md:max-xl:order-first">
          <Loom loom={view.loom} row={row} />
        </section>
      </div>
    </>
  );
}
