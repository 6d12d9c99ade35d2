"use client";
import { Pause, Play, RotateCcw } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { Act, Control, Shows } from "@/core/bench/trial";
import { Select } from "@/ui/shared/select";
import { Switch } from "@/ui/shared/switch";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { PartsAtWork } from "./simulated-parts";

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
          <PartsAtWork shows={shows} controls={running?.controls ?? []} lines={lines} act={act} />
        </>
      )}
    </section>
  );
}
