"use client";
import { format } from "date-fns";
import { useCallback, useEffect, useState } from "react";
import type { LevelId } from "@/core/bench/trainer/trainer";
import { Checkbox } from "@/ui/shared/checkbox";
import { Fold } from "@/ui/shared/fold";
import { Label } from "@/ui/shared/label";
import { core } from "@/ui/state/core";
import { http } from "@/ui/state/http";
import { useProject } from "@/ui/state/project";

interface Attempt {
  id: string;
  learner: string;
  level: string;
  seed: number;
  points: number;
  measured: number;
  best: number;
  minutes: number;
  found: 0 | 1;
  at: string;
}
type Key = Awaited<ReturnType<ReturnType<typeof core>["practiceKey"]>>;

/** For whoever teaches: a number for each bench, what is hidden there, and how it went. */
export function Results({ level, seed, again }: { level: LevelId | null; seed: number; again: number }) {
  const { project, id } = useProject();
  const [list, setList] = useState<Attempt[]>([]);
  const [benches, setBenches] = useState(8);
  const [same, setSame] = useState(false);
  const [key, setKey] = useState<Key | null>(null);
  const load = useCallback(
    () =>
      http<{ attempts: Attempt[] }>("GET", `/api/projects/${id}/attempts`).then((a) => {
        if (a.status === 200) setList(a.body.attempts);
      }),
    [id],
  );
  useEffect(() => void load(), [load, again]);
  return (
    <Fold title="For a class: the key, and the results" className="mt-5">
      <div className="flex flex-wrap items-end gap-3">
        <span>
          <Label htmlFor="benches" className="block text-sm">
            Benches
          </Label>
          <input
            id="benches"
            className="num w-20"
            inputMode="numeric"
            value={benches}
            onChange={(e) => setBenches(Math.min(60, Number(e.target.value.replace(/\D/g, "")) || 1))}
          />
        </span>
        <Checkbox checked={same} onChange={setSame}>
          the same fault at every bench
        </Checkbox>
        <button
          className="btn"
          disabled={!level}
          onClick={() => level && void core().practiceKey(project, level, seed, benches, same).then(setKey)}
        >
          Show the key
        </button>
        {key && (
          <button className="btn" onClick={() => setKey(null)}>
            Hide it
          </button>
        )}
      </div>
      {key && (
        <table className="plain mt-2" aria-label="Key">
          <thead>
            <tr>
              <th>bench</th>
              <th>number to type</th>
              <th>what is hidden</th>
              <th>what mends it</th>
            </tr>
          </thead>
          <tbody>
            {key.map((k) => (
              <tr key={k.bench}>
                <td className="num">{k.bench}</td>
                <td className="num">{k.seed}</td>
                <td>{k.says.join(", and: ")}</td>
                <td>{k.mend.join(" ")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {list.length > 0 && (
        <>
          <table className="plain mt-3" aria-label="Results">
            <thead>
              <tr>
                <th>when</th>
                <th>who</th>
                <th>level</th>
                <th>number</th>
                <th>points</th>
                <th>measured (enough)</th>
                <th>minutes</th>
              </tr>
            </thead>
            <tbody>
              {list.map((a) => (
                <tr key={a.id}>
                  <td className="num">{format(new Date(a.at), "d MMM HH:mm")}</td>
                  <td>{a.learner}</td>
                  <td>{a.level}</td>
                  <td className="num">{a.seed}</td>
                  <td className="num">{a.found ? a.points : "not found"}</td>
                  <td className="num">
                    {a.measured} ({a.best})
                  </td>
                  <td className="num">{a.minutes.toFixed(1)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <button
            className="btn mt-2"
            onClick={() => void http("DELETE", `/api/projects/${id}/attempts`).then(() => setList([]))}
          >
            Take all results off the record
          </button>
        </>
      )}
    </Fold>
  );
}
