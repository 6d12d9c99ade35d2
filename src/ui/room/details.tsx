"use client";
import { useEffect, useState, type ReactNode } from "react";
import type { Project } from "@/core/project";
import type { BenchView } from "@/core/bench/station/view";
import type { RoomBench, RoomView } from "@/server/rooms";
import { core } from "@/ui/state/core";

/** One bench: where it is, what it read, and what that makes suspect, worked out on the teacher's own machine. */
export function BenchDetails({
  room,
  bench,
  document,
  children,
}: {
  room: RoomView;
  bench: RoomBench;
  document: Project | null;
  children: ReactNode;
}) {
  const [view, setView] = useState<BenchView | null>(null);
  const { state } = bench;
  const entries = JSON.stringify(state.entries);
  const odd = state.wrong.length > 0;
  useEffect(() => {
    if (!document || !odd) return setView(null);
    let gone = false;
    void core()
      .bench({ ...document, bench: JSON.parse(entries) as Project["bench"] })
      .then((v) => {
        if (!gone) setView(v);
      });
    return () => {
      gone = true;
    };
  }, [document, entries, odd]);
  return (
    <div>
      <h2 className="border-b border-ink text-lg">
        Bench {bench.n} <span className="num text-sm text-soft">{bench.code}</span>
      </h2>
      <p className="mt-1">
        {state.at ? (
          <>
            Step <span className="num">{state.at.step}</span> of <span className="num">{room.steps.length}</span>:{" "}
            {state.at.title}
          </>
        ) : (
          "All steps are done."
        )}{" "}
        <span className="text-soft">{state.good} checks as they should be.</span>
      </p>
      {odd && (
        <div className="mt-2 border-l-4 border-risk pl-3">
          <p className="font-bold text-risk">Off:</p>
          <ul>
            {state.wrong.map((w) => (
              <li key={w.of} className="num text-sm">
                {w.of}: {w.reading.replace(/ [A-Z]{8}$/, "")}
              </li>
            ))}
          </ul>
          {view && view.suspects.length > 0 && (
            <>
              <p className="mt-1 font-bold">Likely</p>
              <ol className="list-decimal pl-5 text-sm" aria-label="Suspects">
                {view.suspects
                  .filter((s) => s.id)
                  .slice(0, 4)
                  .map((s) => (
                    <li key={s.id}>
                      {s.says} <span className="num text-soft">{Math.round(100 * s.share)} %</span>
                      <span className="block text-soft">{s.mend[0]}</span>
                    </li>
                  ))}
              </ol>
              {view.next && (
                <p className="mt-1 text-sm">
                  Tells most next: <strong>{view.next.what}</strong>
                </p>
              )}
            </>
          )}
        </div>
      )}
      {children}
    </div>
  );
}
