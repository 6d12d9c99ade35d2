"use client";
import { memo, useCallback, useMemo, useRef, useState } from "react";
import { Presentation } from "lucide-react";
import { PHASES } from "@/core/build/runsheet/phases";
import type { RunRow } from "@/core/build/runsheet";
import { InView, useVirtualRows } from "@/ui/shared/virtual";
import { afterwards, later } from "@/ui/shared/later";
import { useActions, useProject } from "@/ui/state/project";
import { Row } from "./row";

/** What draws is fetched beside the sheet, not before it. */
const OneAtATime = later(() => import("./one").then((m) => m.OneAtATime));
const Loom = afterwards(() => import("./loom").then((m) => m.Loom));

type Phase = (typeof PHASES)[number];
/** A line of the sheet: a group's heading, or a step. */
type Line =
  { kind: "phase"; id: string; phase: Phase; ids: readonly string[] } | { kind: "step"; id: string; row: RunRow };

const STEP_PX = 64;

const linesOf = (rows: readonly RunRow[]): Line[] =>
  PHASES.flatMap((phase): Line[] => {
    const own = rows.filter((r) => r.phase === phase.id);
    if (!own.length) return [];
    return [
      { kind: "phase", id: `phase ${phase.id}`, phase, ids: own.map((r) => r.id) },
      ...own.map((row): Line => ({ kind: "step", id: row.id, row })),
    ];
  });

const Heading = memo(function Heading({ phase, done, of }: { phase: Phase; done: number; of: number }) {
  return (
    <h2 className="flex items-end justify-between gap-3 border-b border-ink pt-2">
      <span>
        {phase.title} <span className="font-normal text-soft">{phase.why}</span>
      </span>
      <span className="num shrink-0 text-sm font-normal text-soft" data-testid="group-progress">
        {done} of {of}
      </span>
    </h2>
  );
});

/** One wire a row in a safe order, the loom beside it with the current wire lit. */
export function RunSheet() {
  const { view, project } = useProject();
  const { edit } = useActions();
  const [current, setCurrent] = useState<string | null>(null);
  const [one, setOne] = useState(false);
  const { bench } = project;
  const done = useMemo(() => new Set(bench.filter((b) => b.list === "wires" && b.done).map((b) => b.id)), [bench]);
  const lines = useMemo(() => linesOf(view.rows), [view.rows]);
  const next = view.rows.find((r) => !done.has(r.id));
  const row = view.rows.find((r) => r.id === current) ?? next;
  const list = useRef<HTMLUListElement>(null);
  const rows = useVirtualRows(list, lines.length, STEP_PX, { beyond: 100, keyOf: (i) => lines[i]!.id });
  const pick = useCallback((id: string) => setCurrent(id), []);
  const tick = useCallback(
    (id: string, v: boolean) => {
      setCurrent(null);
      void edit({ type: "tick", list: "wires", id, done: v, at: new Date().toISOString() });
    },
    [edit],
  );
  return (
    <div className="mt-2 grid gap-x-6 gap-y-4 xl:grid-cols-[400px_1fr]">
      <section aria-label="Run sheet">
        <p className="flex items-center justify-between gap-3 pb-1">
          <span>
            {next ? (
              <>
                Step <span className="num">{next.step}</span> of <span className="num">{view.rows.length}</span> is
                next.
              </>
            ) : view.rows.length ? (
              "Every step is ticked."
            ) : (
              "Nothing to wire yet."
            )}
          </span>
          {row && (
            <button className="btn flex items-center gap-2" onClick={() => setOne(true)}>
              <Presentation size={18} aria-hidden /> One at a time
            </button>
          )}
        </p>
        <div data-scrolls className="xl:max-h-[calc(100dvh-12.5rem)] xl:overflow-auto" tabIndex={-1}>
          <ul ref={list}>
            <InView rows={rows}>
              {(i) => {
                const line = lines[i]!;
                return (
                  <li key={line.id} ref={rows.measure} data-index={i}>
                    {line.kind === "phase" ? (
                      <Heading
                        phase={line.phase}
                        done={line.ids.filter((id) => done.has(id)).length}
                        of={line.ids.length}
                      />
                    ) : (
                      <Row row={line.row} on={line.id === row?.id} done={done.has(line.id)} pick={pick} tick={tick} />
                    )}
                  </li>
                );
              }}
            </InView>
          </ul>
        </div>
      </section>
      <section aria-label="Loom drawing" className="max-md:hidden md:max-xl:order-first">
        <Loom row={row} />
      </section>
      {one && row && (
        <OneAtATime
          rows={view.rows}
          at={row}
          done={done}
          go={(r) => setCurrent(r.id)}
          tick={(r, v) => tick(r.id, v)}
          close={() => setOne(false)}
        />
      )}
    </div>
  );
}
