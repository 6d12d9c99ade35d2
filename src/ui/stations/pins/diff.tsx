"use client";
import { when } from "@/ui/shared/when";
import { useState } from "react";
import { useProject } from "@/ui/state/project";
import { Label } from "@/ui/shared/label";

const short = (end: string | null, host: string | undefined) =>
  end === null ? "open" : host && end.startsWith(`${host}.`) ? end.slice(host.length + 1) : end;

/** How the plan differs from the one that was saved: what a bench that is already wired has to change. */
export function Diff() {
  const { view, project, edit } = useProject();
  const saved = project.savedPlan;
  const [name, setName] = useState("");
  const save = () => {
    const called = name.trim().slice(0, 60);
    void edit({ type: "savePlan", at: new Date().toISOString(), ...(called && { name: called }) });
    setName("");
  };
  const host = view.lattices[0]?.host;
  const list = view.diff ?? [];
  const moved = list.filter((m) => m.from && m.to).length;
  const fresh = list.filter((m) => !m.from).length;
  const gone = list.filter((m) => !m.to).length;
  const counts = [
    ...(moved ? [`${moved} ${moved === 1 ? "wire moves" : "wires move"}`] : []),
    ...(fresh ? [`${fresh} ${fresh === 1 ? "is" : "are"} new`] : []),
    ...(gone ? [`${gone} ${gone === 1 ? "goes" : "go"}`] : []),
  ];
  return (
    <div className="mt-2 flex flex-wrap items-baseline gap-x-3 gap-y-1 text-sm" data-testid="plan-diff">
      {saved ? (
        <span>
          Against the plan {saved.name && <strong>{saved.name} </strong>}saved {when(saved.at)}:{" "}
          <strong>{counts.length ? counts.join(", ") : "no wire moves"}</strong>
        </span>
      ) : (
        <span className="text-soft">
          Wired it already? Save the plan, and later changes are counted in wires to move.
        </span>
      )}
      {list.length > 0 && (
        <span className="num">
          {list
            .slice(0, 6)
            .map((m) => `${m.need} ${short(m.from, host)} → ${short(m.to, host)}`)
            .join(", ")}
          {list.length > 6 ? ` and ${list.length - 6} more` : ""}
        </span>
      )}
      {(!saved || list.length > 0) && view.lattices.length > 0 && (
        <span className="inline-flex items-baseline gap-2">
          <button className="quiet" onClick={save}>
            {saved ? "Save this plan instead" : "Save this plan"}
          </button>
          <Label>
            as{" "}
            <input
              className="w-40"
              value={name}
              maxLength={60}
              placeholder="a name, if you like"
              aria-label="Name of the plan"
              onChange={(e) => setName(e.target.value)}
              onKeyDown={(e) => e.key === "Enter" && save()}
            />
          </Label>
        </span>
      )}
    </div>
  );
}
