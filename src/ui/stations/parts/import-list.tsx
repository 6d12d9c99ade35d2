"use client";
import { count } from "@/core/quantity/count";
import { useState } from "react";
import { toast } from "sonner";
import type { Part } from "@/core/parts/catalogue";
import type { MatchedLine } from "@/core/parts/lists";
import type { ListChoice } from "@/workers/api";
import { OpenFile, Problems } from "@/ui/shared/open-file";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { Select } from "@/ui/shared/select";

interface Line extends MatchedLine {
  /** Index of the chosen candidate; -1 while the person has not chosen. */
  chosen: number;
}
const MAX_FILE = 200_000;
const EXAMPLE = "2 x red LED\nBME280\n10 resistors 220 ohm\n74HC595 (2)\nsoil moisture sensor";

const valueWords = (o: Record<string, string | number>) =>
  o.resistance_ohm !== undefined
    ? `${o.resistance_ohm} Ω`
    : o.capacitance_uF !== undefined
      ? `${o.capacitance_uF} µF`
      : o.pixels !== undefined
        ? count(Number(o.pixels), "light")
        : "";

function LineRow({ line, set }: { line: Line; set(l: Line): void }) {
  const c = line.candidates[line.chosen];
  return (
    <tr data-testid={`line-${line.line}`}>
      <td>
        <input
          className="num w-14"
          inputMode="numeric"
          aria-label={`How many of ${line.text}`}
          value={line.quantity || ""}
          onChange={(e) => {
            const n = Math.floor(Number(e.target.value.replace(/\D/g, "")));
            set({ ...line, quantity: Math.min(999, n) });
          }}
        />
      </td>
      <td className="max-w-56 break-words">{line.raw}</td>
      <td>
        {line.candidates.length > 0 ? (
          <Select
            label={`What ${line.text} is`}
            className={`max-w-80 ${line.chosen < 0 ? "border-risk!" : ""}`}
            bold={line.chosen < 0}
            value={String(line.chosen)}
            options={[
              { value: "-1", name: line.status === "sure" ? "none of these" : "choose…" },
              ...line.candidates.map((x, i) => ({ value: String(i), name: `${x.name} ${valueWords(x.options)}` })),
            ]}
            onChange={(v) => {
              const chosen = Number(v);
              set({ ...line, chosen, to: chosen < 0 ? "skip" : line.to === "skip" ? "project" : line.to });
            }}
          />
        ) : line.status === "not-planned" ? (
          <span className="text-soft">not planned here</span>
        ) : (
          <span className="text-risk">nothing like it: make an own part</span>
        )}
      </td>
      <td>
        <Select<Line["to"]>
          label={`Where ${line.text} goes`}
          value={line.to}
          disabled={!c}
          options={[
            { value: "project", name: "into this project" },
            { value: "drawer", name: "into my drawer" },
            { value: "skip", name: "leave out" },
          ]}
          onChange={(to) => set({ ...line, to })}
        />
      </td>
    </tr>
  );
}

function Lines({ title, lines, set }: { title: string; lines: Line[]; set(l: Line): void }) {
  if (!lines.length) return null;
  return (
    <section className="mt-3" aria-label={title}>
      <h2 className="font-bold">{title}</h2>
      <table className="plain">
        <thead>
          <tr>
            <th>number</th>
            <th>your line</th>
            <th>taken as</th>
            <th>goes</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l) => (
            <LineRow key={l.line} line={l} set={set} />
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** A parts list pasted or from a file: matched, shown before anything changes, asking only about what is unclear. */
export function ImportList({ own, done }: { own: readonly Part[]; done(): void }) {
  const { run } = useProject();
  const [text, setText] = useState("");
  const [lines, setLines] = useState<Line[] | null>(null);
  const [problem, setProblem] = useState("");
  const read = async (t: string) => {
    setProblem("");
    const r = await core().list(t, own);
    if (!r.ok) {
      setLines(null);
      return setProblem(r.message);
    }
    setLines(
      r.lines.map((l) => ({ ...l, chosen: l.status === "sure" ? 0 : -1, to: l.status === "sure" ? l.to : "skip" })),
    );
  };
  const bring = async (f: File | undefined) => {
    if (!f) return;
    if (f.size > MAX_FILE)
      return setProblem(`${f.name} is larger than ${MAX_FILE / 1000} kB; a parts list is far smaller.`);
    const t = await f.text();
    if (t.includes("\u0000")) return setProblem(`${f.name} is not text. Save the sheet as CSV and try again.`);
    setText(t);
    await read(t);
  };
  const set = (l: Line) => setLines((all) => all?.map((x) => (x.line === l.line ? l : x)) ?? null);
  const taken = (lines ?? []).filter((l) => l.chosen >= 0 && l.to !== "skip" && l.quantity > 0);
  const pieces = taken.filter((l) => l.to === "project").reduce((s, l) => s + l.quantity, 0);
  const drawer = taken.filter((l) => l.to === "drawer").length;
  const take = () =>
    run(async (p) => {
      const choices = taken.map((l): ListChoice => {
        const c = l.candidates[l.chosen]!;
        return { to: l.to as "project" | "drawer", id: c.id, quantity: l.quantity, options: c.options };
      });
      const s = await core().takeList(p, choices, own);
      if (s.clash)
        toast.error(`The parts are in the list, but their pins do not all fit: ${s.clash}`, { duration: 12_000 });
      else if (s.leftOpen) toast.warning(`${count(s.added, "part")} added. ${s.leftOpen}`, { duration: 20_000 });
      else toast(`${count(s.added, "part")} added, ${count(drawer, "line")} into the drawer.`);
      done();
      return s;
    });
  const unclear = (lines ?? []).filter((l) => l.status === "unclear");
  const sure = (lines ?? []).filter((l) => l.status === "sure");
  const rest = (lines ?? []).filter((l) => l.status === "unknown" || l.status === "not-planned");
  return (
    <section aria-label="Take over a parts list" className="mt-3">
      <p className="max-w-2xl text-soft">
        Paste a list, one part a line, or a table from a sheet or page. Or open a CSV file. Nothing changes until you
        have seen what it was taken as.
      </p>
      <textarea
        aria-label="Parts list"
        className="mt-2 w-full font-mono text-sm"
        rows={lines ? 4 : 9}
        value={text}
        placeholder={EXAMPLE}
        onChange={(e) => setText(e.target.value)}
      />
      <div className="mt-2 flex flex-wrap gap-2">
        <button className="btn-main" onClick={() => void read(text)}>
          Read it
        </button>
        <OpenFile
          says="Open a CSV file…"
          label="Parts list file"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          open={bring}
        />
      </div>
      <Problems lines={problem ? [problem] : []} />
      {lines && (
        <>
          <p role="status" className="mt-3" data-testid="list-sum">
            {sure.length} clear, {unclear.length} to choose, {rest.length} left out.
          </p>
          <Lines title="Please choose" lines={unclear} set={set} />
          <Lines title="Clear" lines={sure} set={set} />
          <Lines title="Left out" lines={rest} set={set} />
          <div className="mt-3 flex items-center gap-3">
            <button className="btn-main" disabled={!taken.length} onClick={() => void take()} data-testid="take-list">
              Take over {pieces} {pieces === 1 ? "part" : "parts"}
              {drawer > 0 && ` and ${drawer} ${drawer === 1 ? "line" : "lines"} into the drawer`}
            </button>
            {unclear.some((l) => l.chosen < 0) && (
              <span className="text-soft">Lines without a choice are left out.</span>
            )}
          </div>
        </>
      )}
    </section>
  );
}
