"use client";
import { useCallback, useState } from "react";
import { Printer } from "lucide-react";
import type { Project } from "@/core/project";
import { Download } from "@/ui/shared/download";
import { DrawingView } from "@/ui/shared/drawing";
import { Select } from "@/ui/shared/select";
import { Tabs } from "@/ui/shared/tabs";
import { core } from "@/ui/state/core";
import { useLit } from "@/ui/state/lit";
import { useCore } from "./use-core";

const SIDES = [
  { id: "parts", name: "Side with the parts" },
  { id: "back", name: "Back, turned over" },
] as const;
type Side = (typeof SIDES)[number]["id"];

/** A board that plugs onto the header: both sides true to scale, and how it is made, hole by hole. */
export function Plug() {
  const lit = useLit();
  const [host, setHost] = useState<string>();
  const [side, setSide] = useState<Side>("parts");
  const ask = useCallback(async (p: Project) => ({ view: await core().plug(p, host) }), [host]);
  const answer = useCore(ask);
  if (!answer) return <p className="mt-3 text-soft">Looking for short wires…</p>;
  const { view } = answer;
  if (!view)
    return <p className="mt-3">Nothing to plug onto yet: it takes a board whose header has known places, and wires.</p>;
  const { board: b } = view;
  return (
    <div className="mt-2">
      {view.hosts.length > 1 && (
        <p className="flex items-center gap-2">
          for the header of
          <Select
            label="Header of"
            value={b.host}
            options={view.hosts.map((h) => ({ value: h.ref, name: h.name }))}
            onChange={setHost}
          />
        </p>
      )}
      {b.trouble.length ? (
        <ul className="mt-2 border-l-4 border-fault pl-3" data-testid="plug-trouble">
          {b.trouble.slice(0, 6).map((t) => (
            <li key={t}>{t}</li>
          ))}
        </ul>
      ) : (
        <p className="mt-2" data-testid="plug-proven">
          Followed from hole to hole: every net is joined, and nothing else.{" "}
          <span className="num">
            {b.columns} × {b.rows}
          </span>{" "}
          holes, <span className="num">{b.mm.join(" × ")} mm</span>; places are row/column, counted from the upper left
          of the side with the parts.
        </p>
      )}
      {b.header.length > 0 && (
        <div className="mt-2 grid gap-x-8 gap-y-3 xl:grid-cols-2">
          <div>
            <Tabs<Side>
              label="Side of the board"
              tabs={SIDES}
              tab={side}
              go={setSide}
              beside={
                <Download path="print?what=plugboard">
                  <Printer size={16} className="mr-1 inline" aria-hidden />
                  Both sides 1:1 (PDF)
                </Download>
              }
            >
              <DrawingView
                drawing={side === "parts" ? view.parts : view.back}
                says={`Plug-on board for ${b.hostName}, ${b.columns} by ${b.rows} holes, ${side === "parts" ? "side with the parts" : "the back"}`}
                lit={lit}
                className="mt-2 max-h-[640px] w-full border border-line bg-sheet"
              />
            </Tabs>
            {b.missing.map((m) => (
              <p key={`${m.header} ${m.why}`} className="mt-1 text-sm text-soft">
                {m.pins.join(", ")}: {m.why}. What is used of these has wires of its own.
              </p>
            ))}
            {b.beside.length > 0 && (
              <ul className="mt-2 text-sm" aria-label="Not on the board">
                {b.beside.map((x) => (
                  <li key={x.ref}>
                    {x.name}: {x.why}
                  </li>
                ))}
              </ul>
            )}
          </div>
          <ol className="list-decimal pl-6" aria-label="How the board is made">
            {view.steps.map((s) => (
              <li key={s.title} className="border-b border-line py-1">
                {s.title}
                <span className="block text-sm text-soft">{s.why}</span>
                {s.rows.length > 0 && (
                  <ul className="text-sm">
                    {s.rows.map((r) => (
                      <li key={r} className="num whitespace-normal!">
                        {r}
                      </li>
                    ))}
                  </ul>
                )}
              </li>
            ))}
          </ol>
        </div>
      )}
    </div>
  );
}
