"use client";
import { useEffect, useRef, useState } from "react";
import type { BenchState } from "@/core/bench/simulated/bench";
import type { Act } from "@/core/bench/trial";
import { core } from "@/ui/state/core";

/** Lines that are kept on the page. */
const MOST_LINES = 200;
/** A page that was away for long does not catch up all at once, ms. */
const MOST_STEP_MS = 250;

export const SPEEDS = [
  { value: "0", name: "stopped" },
  { value: "0.1", name: "a tenth as fast" },
  { value: "1", name: "as fast as it is" },
  { value: "10", name: "ten times as fast" },
] as const;

/** A bench that goes on with the page's frames: one question to the worker at a time. */
export function useRunning(started: number, speed: number, powered: boolean, pulled: readonly number[]) {
  const [shows, setShows] = useState<BenchState["shows"]>([]);
  const [lines, setLines] = useState<readonly { at: number; line: string }[]>([]);
  const acts = useRef<Act[]>([]);
  const at = useRef(0);
  const how = useRef({ speed, powered, pulled });
  useEffect(() => {
    how.current = { speed, powered, pulled };
  }, [speed, powered, pulled]);
  const forward = useRef(0);
  useEffect(() => {
    if (!started) return;
    at.current = 0;
    acts.current = [];
    setLines([]);
    setShows([]);
    let gone = false;
    let busy = false;
    let last = performance.now();
    let shown = "";
    let standing = "";
    const frame = (now: number) => {
      if (gone) return;
      requestAnimationFrame(frame);
      const step = Math.min(now - last, MOST_STEP_MS) * how.current.speed + forward.current;
      last = now;
      const stands = JSON.stringify([how.current.powered, how.current.pulled]);
      if (busy || document.hidden || (step === 0 && !acts.current.length && stands === standing)) return;
      forward.current = 0;
      standing = stands;
      busy = true;
      at.current += step;
      void core()
        .practiceGo(acts.current.splice(0), how.current.powered, how.current.pulled, at.current)
        .then((s) => {
          busy = false;
          if (gone || !s) return;
          const text = JSON.stringify(s.shows);
          if (text !== shown) setShows(s.shows);
          shown = text;
          if (s.said.length) setLines((l) => [...l, ...s.said].slice(-MOST_LINES));
        });
    };
    requestAnimationFrame(frame);
    return () => {
      gone = true;
    };
  }, [started]);
  return {
    shows,
    lines,
    act: (a: Act) => void acts.current.push(a),
    /** One step forward while it is stopped, milliseconds. */
    step: (ms: number) => void (forward.current += ms),
    now: () => at.current,
  };
}
