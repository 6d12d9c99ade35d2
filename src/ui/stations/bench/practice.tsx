"use client";
import { useEffect, useRef, useState } from "react";
import type { LevelId } from "@/core/bench/trainer/trainer";
import { Label } from "@/ui/shared/label";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";
import { http } from "@/ui/state/http";
import { light } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import type { PracticeEnd, PracticeStart } from "@/workers/stations/practice";
import { Results } from "./results";
import { Simulated } from "./simulated";

type Choice = LevelId | "nothing";
interface Level {
  id: LevelId;
  name: string;
  says: string;
}
const MOST_NAMED = 8;

/** Names the fault: a few words of it, then the one that is meant. */
function Name({ faults, name }: { faults: PracticeStart["faults"]; name(id: string): void }) {
  const [text, setText] = useState("");
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const fit = words.length
    ? faults.filter((f) => words.every((w) => `${f.says} ${f.id}`.toLowerCase().includes(w)))
    : [];
  return (
    <div>
      <Label htmlFor="name-it">What is it? A few words, such as “SDA no contact”</Label>
      <input
        id="name-it"
        className="w-full"
        value={text}
        autoComplete="off"
        onChange={(e) => setText(e.target.value)}
      />
      <ul aria-label="Faults that fit">
        {fit.slice(0, MOST_NAMED).map((f) => (
          <li key={f.id}>
            <button className="w-full border-b border-line py-1 text-left hover:bg-wash" onClick={() => name(f.id)}>
              {f.says}
            </button>
          </li>
        ))}
        {words.length > 0 && !fit.length && (
          <li className="text-soft">Nothing that can be wrong here is called that.</li>
        )}
        {fit.length > MOST_NAMED && (
          <li className="text-sm text-soft">{fit.length - MOST_NAMED} more: another word narrows it.</li>
        )}
      </ul>
    </div>
  );
}

function Ended({ end }: { end: PracticeEnd }) {
  const here = useRef<HTMLElement>(null);
  // What was named stood below: the whole story comes into view.
  useEffect(() => here.current?.focus(), []);
  return (
    <section
      ref={here}
      tabIndex={-1}
      aria-label="How it went"
      data-testid="practice-end"
      className="mt-3 border-l-4 border-accent pl-4"
    >
      <p className="text-2xl">
        {end.score.points} points <span className="text-base text-soft">{end.score.says}</span>
      </p>
      {end.truth.map((t) => (
        <p key={t.says} onMouseEnter={() => light(t.at)} onMouseLeave={() => light([])}>
          It was: <strong>{t.says}</strong>. {t.mend}
        </p>
      ))}
      <p className="text-sm text-soft">
        {end.hints} {end.hints === 1 ? "hint" : "hints"}, {end.wrong} named wrongly, {end.minutes.toFixed(1)} minutes.
      </p>
      <h3 className="mt-2 font-bold">What each measurement ruled out</h3>
      <ol className="text-sm">
        {end.replay.map((s, i) => (
          <li key={i} className="border-b border-line py-1">
            <span className="num">{s.seen}</span>: {s.before} to {s.after} left
            {s.fell.length > 0 && <span className="block text-soft">out, for instance: {s.fell.join("; ")}</span>}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** A plan laid out on the simulated bench with something hidden: measured, named, or given up. `ended` hears how it went. */
export function Game({
  start,
  again,
  ended,
}: {
  start: PracticeStart;
  again: number;
  ended(e: PracticeEnd): Promise<string>;
}) {
  const [told, setTold] = useState("");
  const [end, setEnd] = useState<PracticeEnd | null>(null);
  const name = async (fault: string | null) => {
    const { right, end: e } = await core().practiceName(fault);
    if (e) {
      setEnd(e);
      setTold(await ended(e));
    } else setTold(right ? "" : "That is not it: something measured speaks against it, or it shows something else.");
  };
  return (
    <>
      {start.hidden > 0 && !end && (
        <div className="mt-3 border-l-4 border-risk pl-3" data-testid="complaint">
          <strong>{start.hidden === 1 ? "One thing is wrong." : "Two things are wrong."}</strong>{" "}
          {start.complaint.join(" ")}
        </div>
      )}
      {end && (
        <p role="status" className="font-bold text-stop">
          {told}
        </p>
      )}
      {end && <Ended end={end} />}
      <Simulated key={again} start={start} again={again}>
        {start.hidden > 0 && !end && (
          <div className="mt-4 border-t border-line pt-2">
            <Name faults={start.faults} name={(f) => void name(f)} />
            <div className="mt-2 flex gap-2">
              <button className="btn" onClick={() => void core().practiceHint().then(setTold)}>
                A hint (10 points)
              </button>
              <button className="btn" onClick={() => void name(null)}>
                Give up
              </button>
            </div>
            <p role="status" className="mt-2 font-bold">
              {told}
            </p>
          </div>
        )}
      </Simulated>
    </>
  );
}

/** Practice: the simulated bench, with a hidden fault to find or with nothing hidden. */
export function Practice() {
  const { project, view, id } = useProject();
  const [levels, setLevels] = useState<Level[]>([]);
  const [choice, setChoice] = useState<Choice>("continuity");
  const [seed, setSeed] = useState(1);
  const [learner, setLearner] = useState("");
  const [start, setStart] = useState<PracticeStart | null>(null);
  const [again, setAgain] = useState(0);
  const [told, setTold] = useState("");
  const [results, setResults] = useState(0);
  useEffect(() => {
    let gone = false;
    void core()
      .practiceLevels(project)
      .then((l) => !gone && setLevels(l));
    return () => {
      gone = true;
    };
  }, [project]);
  // What was laid out is of the plan as it was.
  useEffect(() => setStart(null), [view.fingerprint]);
  const begin = async () => {
    setTold("");
    const s = await core().practice(project, choice === "nothing" ? null : choice, seed);
    if (!s) setTold("This plan has nothing for that level: choose another.");
    setStart(s);
    setAgain((n) => n + 1);
  };
  const ended = async (e: PracticeEnd): Promise<string> => {
    const a = await http("POST", `/api/projects/${id}/attempts`, {
      learner,
      level: choice,
      seed,
      plan: view.fingerprint,
      points: e.score.points,
      measured: e.score.measured,
      best: e.score.best,
      hints: e.hints,
      wrong: e.wrong,
      minutes: e.minutes,
      found: e.score.points > 0,
    });
    setResults((n) => n + 1);
    return a.status === 201 ? "" : `Not put on record: ${a.body.message ?? "the server does not answer"}`;
  };
  const level = levels.find((l) => l.id === choice);
  return (
    <div className="mt-3" data-testid="practice">
      <p className="text-soft">
        The plan on a simulated bench. A fault is hidden in it: measure, name it, and see what each measurement ruled
        out. Nothing can burn.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <Select<Choice>
          label="What is hidden"
          value={choice}
          options={[
            ...levels.map((l) => ({ value: l.id, name: l.name })),
            { value: "nothing" as const, name: "Nothing: only look around" },
          ]}
          onChange={setChoice}
        />
        <span>
          <Label htmlFor="seed" className="block text-sm">
            Number of the fault
          </Label>
          <input
            id="seed"
            className="num w-28"
            inputMode="numeric"
            value={seed}
            onChange={(e) => setSeed(Math.min(999_999, Number(e.target.value.replace(/\D/g, "")) || 0))}
          />
        </span>
        <span>
          <Label htmlFor="learner" className="block text-sm">
            Who (for the results)
          </Label>
          <input
            id="learner"
            className="w-40"
            maxLength={60}
            value={learner}
            onChange={(e) => setLearner(e.target.value)}
          />
        </span>
        <button className="btn-main" onClick={() => void begin()}>
          {start ? "Lay it out anew" : "Lay it out"}
        </button>
      </div>
      {level && <p className="text-sm text-soft">{level.says}</p>}
      {!start && (
        <p role="status" className="font-bold text-stop">
          {told}
        </p>
      )}
      {start && <Game key={again} start={start} again={again} ended={ended} />}
      <Results level={choice === "nothing" ? null : choice} seed={seed} again={results} />
    </div>
  );
}
