"use client";
import { useEffect, useState, type KeyboardEvent, type PointerEvent } from "react";
import { toast } from "sonner";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { Consequence } from "./told";
import { useTold } from "./use-told";

/** Two pins of the drawing that are being joined: the first is chosen, the second is asked about before the wire is made. */
export interface JointState {
  from: string | null;
  to: string | null;
  /** The pin that Tab leads to; arrow keys go on from there. */
  at: string | null;
  reach(end: string): void;
  pick(end: string): void;
  drop(end: string | null): void;
  clear(): void;
}

export function useJoint(): JointState {
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState<string | null>(null);
  const [at, reach] = useState<string | null>(null);
  const clear = () => {
    setFrom(null);
    setTo(null);
  };
  useEffect(() => {
    const esc = (e: globalThis.KeyboardEvent) => e.key === "Escape" && clear();
    window.addEventListener("keydown", esc);
    return () => window.removeEventListener("keydown", esc);
  }, []);
  return {
    from,
    to,
    at,
    reach,
    clear,
    pick: (end) => {
      if (from === null || to !== null) {
        setFrom(end);
        setTo(null);
      } else if (end === from) clear();
      else setTo(end);
    },
    drop: (end) => {
      if (end && from && end !== from) setTo(end);
    },
  };
}

/** A pin that a wire can be drawn from or to: by drag, or Enter on one and Enter on the other. */
export function Joint({ end, x, y, joint }: { end: string; x: number; y: number; joint: JointState }) {
  const on = joint.from === end || joint.to === end;
  const down = (e: PointerEvent) => {
    e.stopPropagation();
    (e.target as Element).releasePointerCapture?.(e.pointerId);
    joint.pick(end);
  };
  const key = (e: KeyboardEvent<SVGCircleElement>) => {
    const step = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[e.key];
    if (step) {
      e.preventDefault();
      e.stopPropagation();
      const all = [...(e.currentTarget.ownerSVGElement?.querySelectorAll<SVGCircleElement>("[data-pin]") ?? [])];
      all[(all.indexOf(e.currentTarget) + step + all.length) % all.length]?.focus();
      return;
    }
    if (e.key !== "Enter" && e.key !== " ") return;
    e.preventDefault();
    e.stopPropagation();
    joint.pick(end);
  };
  return (
    <circle
      cx={x}
      cy={y}
      r={6.5}
      data-pin={end}
      data-place={end}
      className={`part pointer-events-auto cursor-crosshair outline-none focus-visible:stroke-accent focus-visible:stroke-[2px] ${on ? "fill-accent/30 stroke-accent" : "fill-transparent"}`}
      tabIndex={joint.at === end ? 0 : -1}
      onFocus={() => joint.reach(end)}
      role="button"
      aria-pressed={on}
      aria-label={`Pin ${end}${joint.from && joint.from !== end ? `: join ${joint.from} to it` : ": start a wire here"}`}
      onPointerDown={down}
      onPointerUp={(e) => {
        e.stopPropagation();
        joint.drop(end);
      }}
      onKeyDown={key}
    />
  );
}

/** What the wire between the two chosen pins would bring, and the button that makes it. */
export function JointTold({ joint }: { joint: JointState }) {
  const { run } = useProject();
  const { from, to } = joint;
  const ask = from && to ? ({ do: "join", from, to } as const) : null;
  const told = useTold(ask);
  if (!from) return null;
  const make = () =>
    ask &&
    void run((p) => core().doWire(p, ask)).then((s) => {
      if (!s) return;
      toast(`Joined ${ask.from} to ${ask.to}.`);
      joint.clear();
    });
  return (
    <section aria-label="Wire being drawn" className="border-t border-ink pt-1">
      <p className="flex flex-wrap items-center gap-3">
        <span>
          From <strong className="num">{from}</strong> to{" "}
          {to ? <strong className="num">{to}</strong> : <span className="text-soft">another pin…</span>}
        </span>
        {to && (
          <button className="btn-main" autoFocus disabled={!told?.ok} onClick={make}>
            Join
          </button>
        )}
        <button className="btn" onClick={joint.clear}>
          Leave it
        </button>
      </p>
      <Consequence told={told} />
    </section>
  );
}
