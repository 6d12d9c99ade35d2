"use client";
import { useState } from "react";
import { Presentation } from "lucide-react";
import { PHASES } from "@/core/build/runsheet/phases";
import type { RunRow } from "@/core/build/runsheet";
import { useProject } from "@/ui/state/project";
import { Loom } from "./loom";
import { OneAtATime } from "./one";
import { Row } from "./row";

/** One wire a row in a safe order, the loom beside it with the current wire lit. */
export function RunSheet() {
  const { view, project, edit } = useProject();
  const [current, setCurrent] = useState<string | null>(null);
  const [one, setOne] = useState(false);
  const done = new Set(project.bench.filter((b) => b.list === "wires" && b.done).map((b) => b.id));
  const next = view.rows.find((r) => !done.has(r.id));
  const row = view.rows.find((r) => r.id === current) ?? next;
  const tick = (r: RunRow, v: boolean) => {
    setCurrent(null);
    void edit({ type: "tick", list: "wires", id: r.id, done: v, at: new Date().toISOString() });
  };
  return (
    <div className="mt-2 grid gap-x-6 gap-y-4 xl:grid-cols-[400px_1fr]">
      <section aria-label="Run sheet" className="xl:max-h-[calc(100dvh-13rem)] xl:overflow-auto">
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
        {PHASES.map((ph) => {
          const rows = view.rows.filter((r) => r.phase === ph.id);
          return rows.length ? (
            <div key={ph.id} className="mb-2">
              <h2 className="border-b border-ink pt-1">
                {ph.title} <span className="font-normal text-soft">{ph.why}</span>
                <span className="num float-right text-sm font-normal text-soft" data-testid="group-progress">
                  {rows.filter((r) => done.has(r.id)).length} of {rows.length}
                </span>
              </h2>
              <ul>
                {rows.map((r) => (
                  <Row
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
      <section aria-label="Loom drawing" className="max-md:hidden md:max-xl:order-first">
        <Loom row={row} />
      </section>
      {one && row && (
        <OneAtATime
          rows={view.rows}
          at={row}
          done={done}
          go={(r) => setCurrent(r.id)}
          tick={tick}
          close={() => setOne(false)}
        />
      )}
    </div>
  );
}
