"use client";
import { StepForward } from "lucide-react";
import { useEffect, useState, type ReactNode } from "react";
import type { Mode } from "@/core/bench/simulated/bench";
import { Fold } from "@/ui/shared/fold";
import { PointField } from "@/ui/shared/point-field";
import { Radios } from "@/ui/shared/radios";
import { saveFile } from "@/ui/shared/save-file";
import { Select } from "@/ui/shared/select";
import { Switch } from "@/ui/shared/switch";
import { Checkbox } from "@/ui/shared/checkbox";
import { core } from "@/ui/state/core";
import { light } from "@/ui/state/lit";
import type { PracticeStart } from "@/workers/stations/practice";
import { PartsAtWork } from "../simulated-parts";
import { SPEEDS, useRunning } from "./use-practice";

const STEP_MS = 100;
const MODES: { value: Mode; name: string }[] = [
  { value: "beep", name: "beep" },
  { value: "ohm", name: "ohms" },
  { value: "volt", name: "volts" },
];

interface Measured {
  n: number;
  says: string;
  text: string;
}

/** Two probes and a display: points by what people call them. */
function Meter({ powered, again }: { powered: boolean; again: number }) {
  const [mode, setMode] = useState<Mode>("beep");
  const [a, setA] = useState("");
  const [b, setB] = useState("");
  const [shows, setShows] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const [list, setList] = useState<Measured[]>([]);
  useEffect(() => {
    setList([]);
    setShows(null);
  }, [again]);
  const measure = async () => {
    const m = await core().practiceMeter(mode, a, b, powered);
    setProblem(m.ok ? "" : m.says);
    if (!m.ok) return;
    setA(m.from);
    setB(m.to);
    light([m.from, m.to]);
    setShows(m.text);
    setList((l) => [{ n: l.length + 1, says: `${mode} ${m.from} ${m.to}`, text: m.text }, ...l]);
  };
  return (
    <section aria-label="Meter" data-testid="meter">
      <h2 className="text-lg" id="meter-mode">
        Meter
      </h2>
      <div className="flex flex-wrap items-center gap-x-6">
        <Radios inline labelledBy="meter-mode" value={mode} options={MODES} onChange={(v) => setMode(v)} />
        <output aria-live="polite" className="num text-3xl" data-testid="display">
          {shows ?? "—"}
        </output>
      </div>
      <form
        className="mt-2 flex flex-wrap items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void measure();
        }}
      >
        <PointField label="Red probe" value={a} set={setA} done={() => void measure()} />
        <PointField label="Black probe" value={b} set={setB} done={() => void measure()} />
        <button className="btn-main min-h-9">Measure</button>
      </form>
      {problem && (
        <p role="alert" className="font-bold text-stop">
          {problem}
        </p>
      )}
      {mode !== "volt" && powered && <p className="text-sm text-soft">Beep and ohms want the power off.</p>}
      {mode === "volt" && !powered && <p className="text-sm text-soft">Volts want the power on.</p>}
      <ol className="num mt-2 max-h-40 overflow-auto text-sm" aria-label="Measured">
        {list.map((m) => (
          <li key={m.n} className="flex justify-between gap-4 border-b border-line">
            <span>
              {m.n}. {m.says}
            </span>
            <span>{m.text}</span>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** The build at work, with hands: power, contacts, what parts feel, wires to pull, its console, two probes. */
export function Simulated({ start, again, children }: { start: PracticeStart; again: number; children?: ReactNode }) {
  const [powered, setPowered] = useState(true);
  const [speed, setSpeed] = useState("1");
  const [pulled, setPulled] = useState<readonly number[]>([]);
  const [bringUp, setBringUp] = useState<readonly string[] | null>(null);
  const run = useRunning(again, Number(speed), powered, pulled);
  return (
    <div className="mt-3 grid gap-x-8 gap-y-4 lg:grid-cols-2" data-testid="simulated">
      <div className="min-w-0">
        <div className="flex flex-wrap items-center gap-3">
          <Switch on={powered} turn={setPowered}>
            <strong>Power</strong>
          </Switch>
          <Select
            label="Time"
            value={speed}
            options={SPEEDS.map((s) => ({ value: s.value, name: s.name }))}
            onChange={setSpeed}
          />
          {speed === "0" && (
            <button className="btn inline-flex items-center gap-1" onClick={() => run.step(STEP_MS)}>
              <StepForward size={16} aria-hidden /> {STEP_MS} ms
            </button>
          )}
        </div>
        {start.without && <p className="mt-2">No program runs: {start.without}.</p>}
        {start.left.length > 0 && <p className="text-sm text-soft">Not simulated: {start.left.join(", ")}.</p>}
        <PartsAtWork shows={run.shows} controls={start.controls} lines={run.lines} act={run.act} />
        <div className="mt-2 flex flex-wrap gap-2">
          <button className="btn" onClick={() => void core().practiceBringUp(powered).then(setBringUp)}>
            Run bring-up
          </button>
          <button
            className="btn"
            onClick={() =>
              void core()
                .practiceVcd(run.now())
                .then((t) => saveFile("bench.vcd", t, "text/plain"))
            }
          >
            Capture so far (VCD)
          </button>
        </div>
        {bringUp && (
          <ol aria-label="Lines of bring-up" className="num mt-1 text-sm leading-snug">
            {bringUp.length ? (
              bringUp.map((l, i) => (
                <li
                  key={i}
                  className={l.endsWith("fail") ? "font-bold text-stop" : l.endsWith("ok") ? "text-good" : ""}
                >
                  {l}
                </li>
              ))
            ) : (
              <li>nothing is printed</li>
            )}
          </ol>
        )}
      </div>
      <div className="min-w-0">
        <Meter powered={powered} again={again} />
        {children}
        <Fold title={`Wires pulled out: ${pulled.length || "none"}`} className="mt-3">
          <ul className="max-h-48 overflow-auto text-sm">
            {start.wires.map((w) => (
              <li key={w.i}>
                <Checkbox
                  checked={pulled.includes(w.i)}
                  onChange={(on) => setPulled(on ? [...pulled, w.i] : pulled.filter((x) => x !== w.i))}
                >
                  <span className="num">{w.says}</span>
                </Checkbox>
              </li>
            ))}
          </ul>
        </Fold>
      </div>
    </div>
  );
}
