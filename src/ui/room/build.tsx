"use client";
import { useEffect, useState } from "react";
import type { SheetStep } from "@/core/lesson";
import { core } from "@/ui/state/core";
import { light } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import type { BenchLink } from "./use-bench";

/** The run sheet of a bench, one step at a time, large; where the teacher signs, it waits for that. */
export function Build({ link }: { link: BenchLink }) {
  const { project, edit } = useProject();
  const [steps, setSteps] = useState<SheetStep[]>([]);
  const [back, setBack] = useState<number | null>(null);
  const [first] = useState(project);
  useEffect(() => {
    void core().lessonSteps(first).then(setSteps);
  }, [first]);
  const done = new Set(project.bench.filter((b) => b.list === "wires" && b.done).map((b) => b.id));
  const open = steps.findIndex((s) => !done.has(s.id));
  const at = back ?? open;
  const step = steps[at];
  useEffect(() => {
    light(step?.at ?? []);
    return () => light([]);
  }, [step]);
  if (!steps.length) return <p className="text-soft">Laying the steps out…</p>;
  if (!step)
    return (
      <div>
        <p className="text-2xl text-good">All {steps.length} steps are done.</p>
        <p>Now measure, before anything is plugged in.</p>
        <button className="btn mt-3" onClick={() => setBack(steps.length - 1)}>
          Look at a step again
        </button>
      </div>
    );
  const isDone = done.has(step.id);
  const signed = !step.sign || link.control.signed.includes(step.id);
  const tick = (on: boolean) => {
    void edit({ type: "tick", list: "wires", id: step.id, done: on, at: new Date().toISOString() });
    setBack(null);
  };
  return (
    <section aria-label="Step" data-testid="bench-step">
      <p className="text-soft">
        {step.phase} · step <span className="num">{step.step}</span> of{" "}
        <span className="num">{steps.at(-1)!.step}</span>
      </p>
      <h2 className="text-3xl leading-tight">{step.title}</h2>
      <p className="mt-2 text-xl">{step.says}</p>
      <p className="mt-2 text-soft">{step.look}</p>
      <div className="mt-5 flex flex-wrap gap-3">
        {isDone ? (
          <button className="btn min-h-12 px-6! text-lg" onClick={() => tick(false)}>
            Not done after all
          </button>
        ) : signed ? (
          <button className="btn-main min-h-12 px-8! text-xl" onClick={() => tick(true)}>
            Done
          </button>
        ) : (
          <button
            className="btn-main min-h-12 px-6! text-xl"
            disabled={link.hand}
            onClick={() => link.tell({ kind: "hand", up: true, why: `step ${step.step} to be signed` })}
          >
            {link.hand ? "Your teacher is asked" : "Show it to your teacher"}
          </button>
        )}
        <button className="btn min-h-12" disabled={at <= 0} onClick={() => setBack(at - 1)}>
          The one before
        </button>
        {back !== null && (
          <button className="btn min-h-12" onClick={() => setBack(at + 1 >= open && open >= 0 ? null : at + 1)}>
            The one after
          </button>
        )}
      </div>
      <p className="mt-4 h-2 border border-line" role="img" aria-label={`${done.size} steps done`}>
        <span
          className="block h-full bg-accent"
          ref={(el) => {
            if (el) el.style.width = `${(100 * done.size) / steps.length}%`;
          }}
        />
      </p>
    </section>
  );
}
