"use client";
import { useState } from "react";
import type { Picks, Side } from "@/core/project";
import { Radios } from "@/ui/shared/radios";
import { useProject } from "@/ui/state/project";

/** Shown when somebody else has saved this project meanwhile and both sides changed the same things. Nothing is lost either way. */
export function StaleNotice() {
  const s = useProject();
  const [picks, setPicks] = useState<Picks>({});
  const { asked } = s;
  if (!asked) return null;
  const open = asked.clashes.filter((c) => !(c.key in picks)).length;
  return (
    <div role="alert" className="max-h-[60vh] shrink-0 overflow-auto border-b border-ink bg-wash px-4 py-2">
      <p>
        <strong>This project was changed somewhere else too, and both changed the same.</strong>{" "}
        {asked.problem
          ? `The two do not make one project: ${asked.problem}.`
          : "All else is put together by itself. Choose what counts; both versions stay in the list of versions."}
      </p>
      {!asked.problem && (
        <ul className="mt-1">
          {asked.clashes.map((c) => (
            <li key={c.key} className="border-t border-line py-1" data-testid="clash">
              <strong>{c.what}</strong>
              <Radios<Side>
                inline
                label={c.what}
                value={picks[c.key]}
                onChange={(side) => setPicks((p) => ({ ...p, [c.key]: side }))}
                options={[
                  { value: "mine", name: `here: ${c.mine}` },
                  { value: "theirs", name: `there: ${c.theirs}` },
                ]}
              />
            </li>
          ))}
        </ul>
      )}
      <div className="mt-2 flex flex-wrap gap-3">
        {!asked.problem && (
          <button
            className="btn-main"
            disabled={open > 0}
            onClick={() => void s.putTogether(picks).then(() => setPicks({}))}
          >
            {open ? `Put together (${open} to choose)` : "Put together"}
          </button>
        )}
        <button className="btn" onClick={() => void s.keepMineAsCopy()}>
          Keep mine as a copy
        </button>
        <button className="btn" onClick={() => void s.takeTheirs()}>
          Show the newer version
        </button>
      </div>
    </div>
  );
}
