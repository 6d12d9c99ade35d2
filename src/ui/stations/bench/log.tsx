"use client";
import { format } from "date-fns";
import { useEffect, useState } from "react";
import type { LogRow } from "@/core/bench/station/log";
import { saveFile } from "@/ui/shared/save-file";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { readingWords } from "./words";

const day = (at: string) => {
  const d = new Date(at);
  return Number.isNaN(d.getTime()) ? at : format(d, "d MMM yyyy");
};
const time = (at: string) => {
  const d = new Date(at);
  return Number.isNaN(d.getTime()) ? "" : format(d, "HH:mm:ss");
};

/** Every reading on record, by day, newest first; what was wrong and what mended it. */
export function Log() {
  const { project } = useProject();
  const [rows, setRows] = useState<LogRow[] | null>(null);
  useEffect(() => {
    let gone = false;
    void core()
      .benchLog(project)
      .then((r) => !gone && setRows(r));
    return () => {
      gone = true;
    };
  }, [project]);
  if (!rows) return null;
  if (!rows.length) return <p className="mt-4">Nothing measured yet. Each reading is kept here with its time.</p>;
  return (
    <div className="mt-3" data-testid="bench-log">
      <button
        className="btn"
        onClick={() =>
          void core()
            .benchLogCsv(project)
            .then((t) => saveFile("bench-log.csv", t, "text/csv"))
        }
      >
        Download the log (CSV)
      </button>
      <table className="plain mt-2">
        <thead>
          <tr>
            <th>when</th>
            <th>what</th>
            <th>reading</th>
            <th>compared</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r, i) => (
            <tr key={`${r.at} ${r.id} ${i}`}>
              <td className="num">
                {i === 0 || day(rows[i - 1]!.at) !== day(r.at) ? `${day(r.at)} ` : ""}
                {time(r.at)}
              </td>
              <td>{r.what}</td>
              <td className={`num ${r.kind === "mended" ? "" : r.ok ? "text-good" : "font-bold text-stop"}`}>
                {readingWords(r.reading)}
                {r.kind === "reading" && !r.ok && ": off"}
              </td>
              <td>{r.change}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
