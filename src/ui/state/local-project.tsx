"use client";
import { useCallback, useMemo, useRef, useState, type ReactNode } from "react";
import type { Edit, Project } from "@/core/project";
import type { Step } from "@/workers/step";
import type { Slice } from "@/workers/view";
import { core, look } from "./core";
import { light } from "./lit";
import { Actions, Context, type ProjectActions, type ProjectState } from "./project";

/**
 * A project that is not kept by the server, such as a bench's copy of a lesson's plan: edits change it here, and whoever gave it
 * hears of each. Nothing is saved, and there is nothing to undo.
 */
export function LocalProject({
  id,
  first,
  heard,
  children,
}: {
  id: string;
  first: Step;
  heard(e: Edit): void;
  children: ReactNode;
}) {
  const [now, setNow] = useState(first);
  const latest = useRef(first);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const run = useCallback(<S extends Step>(work: (p: Project) => Promise<S | null>): Promise<S | null> => {
    const job = queue.current.then(async () => {
      const step = await work(latest.current.project);
      if (step && step.project !== latest.current.project) {
        latest.current = step;
        setNow(step);
      }
      return step;
    });
    queue.current = job.catch(() => undefined);
    return job;
  }, []);
  const edit = useCallback(
    async (e: Edit) => {
      const step = await run(async (p) => (await core().edit(p, e)) as Step);
      heard(e);
      return step;
    },
    [run, heard],
  );
  const watch = useCallback((names: readonly Slice[]) => {
    void look(latest.current.project, names).then((got) =>
      setNow((n) => ({ ...n, view: { ...n.view, ...got } }) as Step),
    );
    return () => undefined;
  }, []);
  const nothing = useCallback(async () => undefined, []);
  const value = useMemo<ProjectState>(
    () => ({
      id,
      ready: true,
      missing: null,
      project: now.project,
      view: now.view,
      save: "saved",
      version: 0,
      asked: null,
      putTogether: nothing,
      takeTheirs: nothing,
      keepMineAsCopy: nothing,
      run,
      edit,
      saveNow: nothing,
      undo: () => undefined,
      redo: () => undefined,
      canUndo: null,
      canRedo: null,
      light,
      watch,
    }),
    [id, now, run, edit, watch, nothing],
  );
  const actions = useMemo<ProjectActions>(
    () => ({ id, run, edit, saveNow: nothing, light, now: () => latest.current.project }),
    [id, run, edit, nothing],
  );
  return (
    <Actions.Provider value={actions}>
      <Context.Provider value={value}>{children}</Context.Provider>
    </Actions.Provider>
  );
}
