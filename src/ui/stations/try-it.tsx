"use client";
import { Pause, Play, RotateCcw } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { Act, Control, Shows } from "@/core/bench/trial";
import { Select } from "@/ui/shared/select";
import { Slider } from "@/ui/shared/slider";
import { Switch } from "@/ui/shared/switch";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

/** How often it goes on, ms. */
const STEP_MS = 100;
/** Lines that are kept on the page. */
const MOST_LINES = 200;
/** How many times as fast as it would be. */
const FAST = 10;

interface Line {
  at: number;
  line: string;
}
interface Running {
  controls: readonly Control[];
  left: readonly string[];
}

/** A contact: held as long as it is pressed, by mouse, thumb, Space or Enter. */
function Contact({ label, hold }: { label: string; hold(down: boolean): void }) {
  const [down, setDown] = useState(false);
  const set = (v: boolean) => {
    if (v === down) return;
    setDown(v);
    hold(v);
  };
  return (
    <button
      className="btn touch-none select-none"
      aria-pressed={down}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        set(true);
      }}
      onPointerUp={() => set(false)}
      onPointerCancel={() => set(false)}
      onKeyDown={(e) => {
        if (e.key === " " || e.key === "Enter") {
          e.preventDefault();
          set(true);
        }
      }}
      onKeyUp={(e) => (e.key === " " || e.key === "Enter") && set(false)}
      onBlur={() => set(false)}
    >
      {label}
    </button>
  );
}

/** What a part feels, along its range. */
function Feels({ c, set }: { c: Extract<Control, { kind: "feels" }>; set(v: number): void }) {
  const [value, setValue] = useState(c.value);
  const name = `${c.label}: ${c.word}`;
  return (
    <div className="flex items-center gap-2">
      <span className="w-36 shrink-0 leading-tight">{name}</span>
      <Slider
        label={name}
        value={value}
        min={c.least}
        max={c.most}
        step={c.step}
        onChange={(v) => (setValue(v), set(v))}
      />
      <span className="num w-24 shrink-0 text-right text-sm">
        {Math.round(value * 100) / 100} {c.unit === "C" ? "°C" : c.unit}
      </span>
    </div>
  );
}

function Dots({ colours, says }: { colours: readonly string[]; says: string }) {
  return (
    <span role="img" aria-label={says} className="inline-flex flex-wrap gap-0.5 align-middle">
      {colours.map((c, i) => (
        <span key={i} className="size-3 rounded-full border border-line" style={{ background: c }} />
      ))}
    </span>
  );
}
const LIT = "var(--color-accent)";
const onOff = (lit: readonly boolean[]) => lit.map((on) => (on ? LIT : "transparent"));

function Shown({ s }: { s: Shows }) {
  switch (s.kind) {
    case "light":
      return (
        <>
          <Dots colours={onOff([s.lit])} says={s.lit ? "lit" : "dark"} /> {s.lit ? "lit" : "dark"}
        </>
      );
    case "strip": {
      const lit = s.colours.filter((c) => c !== "rgb(0, 0, 0)").length;
      return <Dots colours={s.colours} says={`${lit} of ${s.colours.length} lit`} />;
    }
    case "grid":
      return <Dots colours={onOff(s.lit)} says={`${s.lit.filter(Boolean).length} of ${s.lit.length} lit`} />;
    case "rows":
      return (
        <pre className="num mt-1 w-fit border border-line bg-wash px-2 py-1 text-sm leading-snug whitespace-pre!">
          {s.rows.join("\n")}
        </pre>
      );
    case "does":
      return <>{s.says}</>;
  }
}

/** The program at work on a bench of simulated parts: contacts to press, things to feel, what it shows and prints. */
export function TryIt() {
  const { project, view } = useProject();
  const [hosts, setHosts] = useState<string[]>([]);
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const host = chosen !== null && hosts.includes(chosen) ? chosen : hosts[0];
  const [running, setRunning] = useState<Running | null>(null);
  const [goes, setGoes] = useState(true);
  const [fast, setFast] = useState(false);
  const [again, setAgain] = useState(0);
  const [shows, setShows] = useState<readonly Shows[]>([]);
  const [lines, setLines] = useState<readonly Line[]>([]);
  const acts = useRef<Act[]>([]);
  const at = useRef(0);
  useEffect(() => {
    let gone = false;
    void core()
      .triable(project)
      .then((h) => !gone && setHosts(h));
    return () => {
      gone = true;
    };
  }, [project]);
  // It begins anew whenever the plan or its sentences change.
  useEffect(() => {
    let gone = false;
    if (!open || host === undefined) return;
    void core()
      .trial(project, host)
      .then((r) => {
        if (gone) return;
        at.current = 0;
        acts.current = [];
        setLines([]);
        setShows([]);
        setRunning(r);
      });
    return () => {
      gone = true;
      setRunning(null);
    };
  }, [project, host, open, again]);
  useEffect(() => {
    if (!running || !goes) return;
    let busy = false;
    let gone = false;
    const id = setInterval(() => {
      if (busy || document.hidden) return;
      busy = true;
      at.current += STEP_MS * (fast ? FAST : 1);
      void core()
        .goOn(acts.current.splice(0), at.current)
        .then((s) => {
          busy = false;
          if (gone || !s) return;
          setShows(s.shows);
          if (s.said.length) setLines((l) => [...l, ...s.said].slice(-MOST_LINES));
        });
    }, STEP_MS);
    return () => {
      gone = true;
      clearInterval(id);
    };
  }, [running, goes, fast]);
  const log = useRef<HTMLPreElement>(null);
  useEffect(() => {
    log.current?.scrollTo({ top: log.current.scrollHeight });
  }, [lines]);
  if (!hosts.length) return null;
  const act = (a: Act) => void acts.current.push(a);
  const label = (h: string) => view.hosts.find((x) => x.ref === h)?.label ?? h;
  return (
    <section aria-label="Try it here" className="mb-4 border-b border-line pb-3" data-testid="try-it">
      <h2 className="font-bold">Try it here</h2>
      <p className="text-sm text-soft">
        The starter on simulated parts, before anything is wired: press, turn, and see what it does.
        {open && running?.left.length ? ` Not simulated: ${running.left.join(", ")}.` : ""}
      </p>
      {!open ? (
        <button className="btn mt-1 inline-flex items-center gap-1" onClick={() => setOpen(true)}>
          <Play size={16} aria-hidden /> Start
        </button>
      ) : (
        <>
          <div className="mt-1 flex flex-wrap items-center gap-2">
            <button className="btn inline-flex items-center gap-1" onClick={() => setGoes(!goes)}>
              {goes ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />} {goes ? "Pause" : "Go on"}
            </button>
            <button className="btn inline-flex items-center gap-1" onClick={() => (setGoes(true), setAgain(again + 1))}>
              <RotateCcw size={16} aria-hidden /> From the start
            </button>
            <Switch on={fast} turn={setFast}>
              {FAST} times as fast
            </Switch>
            {hosts.length > 1 && (
              <Select
                label="Board"
                value={host ?? ""}
                options={hosts.map((h) => ({ value: h, name: label(h) }))}
                onChange={setChosen}
              />
            )}
          </div>
          <div className="mt-2 space-y-2">
            <div>
              <ul className="space-y-1" aria-label="What the parts do">
                {shows.map((s) => (
                  <li key={s.ref}>
                    <span className="font-bold">{s.label}</span> <Shown s={s} />
                  </li>
                ))}
              </ul>
              {running && running.controls.length > 0 && (
                <div className="mt-2 space-y-1" role="group" aria-label="What you do">
                  <div className="flex flex-wrap gap-2">
                    {running.controls.map(
                      (c) =>
                        c.kind === "contact" && (
                          <Contact
                            key={`${c.ref} ${c.place ?? ""}`}
                            label={c.label}
                            hold={(down) => act({ ref: c.ref, down, place: c.place })}
                          />
                        ),
                    )}
                  </div>
                  {running.controls.map(
                    (c) =>
                      c.kind === "feels" && (
                        <Feels
                          key={`${c.ref} ${c.quantity}`}
                          c={c}
                          set={(value) => act({ ref: c.ref, quantity: c.quantity, value })}
                        />
                      ),
                  )}
                </div>
              )}
            </div>
            <pre
              ref={log}
              role="log"
              aria-label="Console"
              tabIndex={0}
              className="num h-44 overflow-auto border border-line bg-wash p-2 text-sm leading-snug whitespace-pre!"
            >
              {lines.map((l) => `${(l.at / 1000).toFixed(1).padStart(6)}  ${l.line}\n`).join("")}
            </pre>
          </div>
        </>
      )}
    </section>
  );
}
