"use client";
import { useEffect, useState } from "react";
import type { PatternView, StartsWith } from "@/workers/api";
import { Radios } from "@/ui/shared/radios";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";
import { startsWith } from "@/ui/state/starts-with";

const UNSEEN = "not looked at yet";

/** One pattern: what it does, on which board, what it takes, how its headers read, how one goes on. */
export function PatternDetails({ id, begin }: { id: string; begin(document: object): void }) {
  const [view, setView] = useState<PatternView | null>(null);
  const [board, setBoard] = useState<string | undefined>();
  const [looked, setLooked] = useState<Record<string, string | null>>({});
  const [placing, setPlacing] = useState(false);
  const [starts, setStarts] = useState<StartsWith | null>(null);
  useEffect(() => {
    void startsWith().then(setStarts);
  }, []);
  useEffect(() => {
    if (!starts) return;
    let gone = false;
    void core()
      .patternView(id, board, looked, starts)
      .then((v) => {
        if (!gone) setView(v);
      });
    return () => {
      gone = true;
    };
  }, [id, board, looked, starts]);
  if (!view) return <p className="text-soft">Planning…</p>;
  return (
    <section aria-label={view.row.title} className="min-w-0 self-start md:sticky md:top-4">
      <h2 className="text-2xl">{view.row.title}</h2>
      <p className="max-w-2xl">{view.row.goal}</p>
      <p className="mt-3 flex flex-wrap items-baseline gap-x-6">
        <strong className={view.verdict === "Ready to wire" ? "text-good" : "text-risk"} role="status">
          {view.verdict}
        </strong>
        <span>
          <span className="num text-xl">{view.wires}</span> wires and legs to lay
        </span>
        <span>
          about <span className="num text-xl">{view.minutes}</span> minutes for two learners, checks and upload included
        </span>
        <button
          className="btn-main"
          disabled={placing}
          onClick={() => {
            setPlacing(true);
            void core().placed(view.project).then(begin);
          }}
        >
          {placing ? "Finding the holes…" : "Begin with this"}
        </button>
      </p>
      {view.boards.length > 1 && (
        <div className="mt-4">
          <p className="font-bold" id="pattern-board">
            On which board?
          </p>
          <Radios
            labelledBy="pattern-board"
            value={view.board}
            options={view.boards.map((b) => ({ value: b.part, name: b.name }))}
            onChange={setBoard}
          />
        </div>
      )}
      <div className="mt-4 grid gap-x-8 gap-y-4 lg:grid-cols-2">
        <div>
          <h3 className="text-lg">What it does</h3>
          <ul className="list-disc pl-5">
            {view.does.map((s) => (
              <li key={s}>{s}</li>
            ))}
            {!view.does.length && <li>It shows what it reads.</li>}
          </ul>
        </div>
        <div>
          <h3 className="text-lg">What it takes</h3>
          <ul>
            {view.parts.map((p) => (
              <li key={p.ref} className="border-b border-line py-0.5">
                {p.label} <span className="text-sm text-soft">{p.name}</span>
              </li>
            ))}
          </ul>
        </div>
      </div>
      {view.look.length > 0 && (
        <div className="mt-4">
          <h3 className="text-lg">Read the print on yours</h3>
          <p className="text-sm text-soft">
            Sellers print the same module in different orders. The pattern takes these; choose yours where it reads
            otherwise.
          </p>
          <ul>
            {view.look.map((x) => (
              <li key={x.ref} className="flex flex-wrap items-center gap-x-3 border-b border-line py-1">
                <span className="w-28">{x.label}</span>
                <Select<string>
                  label={`How the header of ${x.label} reads`}
                  value={x.ref in looked ? (looked[x.ref] ?? "") : x.prints[0]!.id}
                  options={[...x.prints.map((p) => ({ value: p.id, name: p.reads })), { value: "", name: UNSEEN }]}
                  onChange={(v) => setLooked({ ...looked, [x.ref]: v || null })}
                />
              </li>
            ))}
          </ul>
        </div>
      )}
      <div className="mt-4">
        <h3 className="text-lg">Then go on</h3>
        <ol className="list-decimal pl-5">
          {view.onward.map((o) => (
            <li key={o.id}>{o.says}</li>
          ))}
        </ol>
      </div>
    </section>
  );
}
