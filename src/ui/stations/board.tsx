"use client";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { BoardTrial } from "@/core/assign";
import { StationTitle } from "@/ui/shared/title";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

/** Board: every board tried for this parts list, by the same solver that plans the pins. */
export function Board() {
  const { project, run } = useProject();
  const [trials, setTrials] = useState<BoardTrial[] | null>(null);
  useEffect(() => {
    let gone = false;
    void core()
      .boards(project)
      .then((t) => !gone && setTrials(t));
    return () => {
      gone = true;
    };
  }, [project]);
  const use = (id: string) =>
    void run(async (p) => {
      const s = await core().board(p, id);
      if (s.clash) toast.error(`The pins do not fit on this board: ${s.clash}`, { duration: 12_000 });
      return s;
    });
  return (
    <>
      <StationTitle name="Board" says="Each board was really planned with this parts list. Best first." />
      <table className="plain mt-3">
        <thead>
          <tr>
            <th>Board</th>
            <th>Does it fit?</th>
            <th>Pins to spare</th>
            <th>Levels to change</th>
            <th>
              <span className="sr-only">Choose</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {trials?.map((t) => (
            <tr key={t.board}>
              <td>
                <strong>{t.name}</strong>
                {t.current && <span className="block text-sm text-soft">in use</span>}
              </td>
              <td className={t.fits ? "" : "text-fault"}>{t.why}</td>
              <td className="num">{t.fits ? t.spare : "–"}</td>
              <td>
                {!t.fits
                  ? "–"
                  : t.overdriven + t.short === 0
                    ? "none"
                    : [t.overdriven && `${t.overdriven} too high for a pin`, t.short && `${t.short} too low to be read`]
                        .filter(Boolean)
                        .join(", ")}
              </td>
              <td className="text-right">
                {!t.current && (
                  <button className="btn" onClick={() => use(t.board)} aria-label={`Use this board: ${t.name}`}>
                    Use this board
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {!trials && <p className="mt-2 text-soft">Trying every board…</p>}
      <p className="mt-4 max-w-2xl text-soft">
        Changing the board keeps the parts and their options. Wires to the old board are planned anew; undo brings
        everything back.
      </p>
    </>
  );
}
