"use client";
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { toast } from "sonner";
import type { Edit, Project } from "@/core/project";
import type { Step } from "@/workers/step";
import type { Slice, View } from "@/workers/view";
import { core, look } from "./core";
import { http } from "./http";
import { light } from "./lit";

export type SaveState = "saved" | "unsaved" | "saving" | "stale" | "failed";

interface Moment {
  project: Project;
  says: string;
}

export interface ProjectState {
  id: string;
  ready: boolean;
  missing: string | null;
  project: Project;
  /** What the frame shows, and the slices that somebody here watches: see `useSlices`. */
  view: View;
  save: SaveState;
  version: number;
  /** The newer document that another tab saved, when ours is stale. */
  theirs: { version: number; document: Project } | null;
  takeTheirs(): Promise<void>;
  keepMineAsCopy(): Promise<void>;
  /** Runs a step against the latest project; steps queue up, so nothing is lost between two quick ones. */
  run<S extends Step>(work: (p: Project) => Promise<S | null>): Promise<S | null>;
  edit(e: Edit): Promise<Step | null>;
  /** Resolves when everything is on disk, or can't be saved now. */
  saveNow(): Promise<void>;
  undo(): void;
  redo(): void;
  canUndo: string | null;
  canRedo: string | null;
  light(places: readonly string[]): void;
  /** Watches slices until the answer is called. */
  watch(names: readonly Slice[]): () => void;
}

/** What a row needs to act without being drawn again at every edit. */
export interface ProjectActions extends Pick<ProjectState, "id" | "run" | "edit" | "saveNow" | "light"> {
  /** The project as it is when this is called. */
  now(): Project;
}

const Context = createContext<ProjectState | null>(null);
const Actions = createContext<ProjectActions | null>(null);
const SAVE_AFTER_MS = 350;
const RETRY_AFTER_MS = 4000;

/** The project of this page. Throws outside its provider: that is a bug. */
export function useProject(): ProjectState {
  const s = useContext(Context);
  if (!s) throw new Error("no project here");
  return s;
}

/** The acts alone: they stay the same as long as the page does. Throws outside the provider. */
export function useActions(): ProjectActions {
  const a = useContext(Actions);
  if (!a) throw new Error("no project here");
  return a;
}

/** Watches slices of the view while the caller is there; true when all of them are. `names` must be stable. */
export function useSlices(names: readonly Slice[]): boolean {
  const { watch, view } = useProject();
  useEffect(() => watch(names), [watch, names]);
  return view !== undefined && names.every((n) => n in view);
}

export function ProjectProvider({ id, children }: { id: string; children: ReactNode }) {
  const [now, setNow] = useState<{ project: Project; view: View } | null>(null);
  const [missing, setMissing] = useState<string | null>(null);
  const [past, setPast] = useState<Moment[]>([]);
  const [future, setFuture] = useState<Moment[]>([]);
  const [save, setSave] = useState<SaveState>("saved");
  const [theirs, setTheirs] = useState<ProjectState["theirs"]>(null);
  const [version, setVersion] = useState(0);
  const latest = useRef<Project | null>(null);
  const base = useRef(0);
  const pending = useRef<{ project: Project; says: string } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const saving = useRef(false);
  const flushAgain = useRef<(() => Promise<void>) | null>(null);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const watched = useRef(new Map<Slice, number>());
  const looking = useRef(false);

  const flush = useCallback(
    async (keepalive = false) => {
      if (saving.current || !pending.current) return;
      saving.current = true;
      while (pending.current) {
        const { project, says } = pending.current;
        pending.current = null;
        setSave("saving");
        const r = await http<{ version: number; document: Project }>(
          "PUT",
          `/api/projects/${id}`,
          { base: base.current, document: project, summary: says.slice(0, 300) },
          keepalive,
        );
        if (r.status === 200) {
          base.current = r.body.version;
          setVersion(r.body.version);
          if (!pending.current) setSave("saved");
        } else if (r.status === 409) {
          setTheirs({ version: r.body.version, document: r.body.document });
          setSave("stale");
          break;
        } else {
          pending.current ??= { project, says };
          setSave("failed");
          toast.error(r.body.message ?? "Not saved.", { id: "save" });
          if (r.status === 0 || r.status >= 500)
            timer.current = setTimeout(() => void flushAgain.current?.(), RETRY_AFTER_MS);
          break;
        }
      }
      saving.current = false;
    },
    [id],
  );

  useEffect(() => void (flushAgain.current = flush), [flush]);

  const saveNow = useCallback(async () => {
    await queue.current;
    clearTimeout(timer.current);
    // A save that is on its way takes the newest change along before it ends.
    for (let i = 0; i < 100 && saving.current; i++) await new Promise((r) => setTimeout(r, 30));
    await flush();
  }, [flush]);

  const schedule = useCallback(
    (project: Project, says: string) => {
      pending.current = { project, says };
      setSave((s) => (s === "stale" ? s : "unsaved"));
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void flush(), SAVE_AFTER_MS);
    },
    [flush],
  );

  const show = useCallback((s: { project: Project; view: View }) => {
    latest.current = s.project;
    setNow(s);
  }, []);

  /** Gets what is watched now; a step that comes between carries only what was watched before it, so it is asked again. */
  const lookAgain = useCallback(async () => {
    if (looking.current) return;
    looking.current = true;
    try {
      for (;;) {
        // Once a turn: a station that leaves and one that comes ask together.
        await null;
        const here = latest.current;
        const names = [...watched.current.keys()];
        if (!here) return;
        const got = await look(here, names);
        // Somebody may have turned to another station meanwhile: what is watched now is not what was asked for.
        if (latest.current !== here || [...watched.current.keys()].some((n) => !names.includes(n))) continue;
        // What is here already is not drawn anew.
        setNow((n) =>
          n?.project === here && (Object.keys(got) as Slice[]).some((k) => got[k] !== n.view[k])
            ? { project: here, view: { ...n.view, ...got } }
            : n,
        );
        return;
      }
    } catch (e) {
      toast.error(e instanceof Error ? e.message : String(e), { id: "look" });
    } finally {
      looking.current = false;
    }
  }, []);
  const watch = useCallback(
    (names: readonly Slice[]) => {
      const count = watched.current;
      for (const n of names) count.set(n, (count.get(n) ?? 0) + 1);
      void lookAgain();
      return () => {
        for (const n of names) {
          const left = (count.get(n) ?? 1) - 1;
          if (left) count.set(n, left);
          else count.delete(n);
        }
      };
    },
    [lookAgain],
  );

  useEffect(() => {
    let gone = false;
    void core()
      .ready()
      .catch(() => undefined);
    void (async () => {
      const r = await http<{ version: number; document: Project }>("GET", `/api/projects/${id}`);
      if (gone) return;
      if (r.status !== 200) return setMissing(r.body.message ?? "This project can't be opened.");
      const step = await core().open(r.body.document);
      if (gone) return;
      base.current = r.body.version;
      setVersion(r.body.version);
      show(step);
      if (watched.current.size) void lookAgain();
    })();
    return () => {
      gone = true;
    };
  }, [id, show, lookAgain]);

  useEffect(() => {
    const leave = () => void flush(true);
    window.addEventListener("pagehide", leave);
    return () => window.removeEventListener("pagehide", leave);
  }, [flush]);

  const run = useCallback(
    <S extends Step>(work: (p: Project) => Promise<S | null>): Promise<S | null> => {
      const job = queue.current.then(async () => {
        const before = latest.current;
        if (!before) return null;
        const step = await work(before);
        // The worker tells when nothing changed: the project is then the very same.
        if (!step || step.project === before) return step;
        show(step);
        setPast((p) => [...p.slice(-199), { project: before, says: step.says }]);
        setFuture([]);
        schedule(step.project, step.says);
        return step;
      });
      queue.current = job.catch((e) =>
        toast.error(`That failed, nothing was changed: ${e instanceof Error ? e.message : e}`),
      );
      return job;
    },
    [schedule, show],
  );

  const edit = useCallback((e: Edit) => run(async (p) => (await core().edit(p, e)) as Step), [run]);

  const travel = useCallback(
    (from: Moment[], setFrom: typeof setPast, setTo: typeof setPast, word: string) => {
      const moment = from[from.length - 1];
      const here = latest.current;
      if (!moment || !here) return;
      setFrom((l) => l.slice(0, -1));
      setTo((l) => [...l, { project: here, says: moment.says }]);
      queue.current = queue.current.then(async () => {
        show(await core().open(moment.project));
        schedule(moment.project, `${word} ${moment.says}`);
      });
    },
    [schedule, show],
  );

  const takeTheirs = useCallback(async () => {
    if (!theirs) return;
    pending.current = null;
    base.current = theirs.version;
    setVersion(theirs.version);
    show(await core().open(theirs.document));
    setPast([]);
    setFuture([]);
    setTheirs(null);
    setSave("saved");
  }, [show, theirs]);

  const keepMineAsCopy = useCallback(async () => {
    const mine = latest.current;
    if (!mine) return;
    const r = await http<{ id: string }>("POST", "/api/projects", {
      document: { ...mine, title: `${mine.title} (my copy)`.slice(0, 120) },
    });
    if (r.status === 201) window.location.assign(`/p/${r.body.id}/parts`);
    else toast.error(r.body.message ?? "The copy could not be made.");
  }, []);

  const value = useMemo<ProjectState>(
    () => ({
      id,
      ready: now !== null,
      missing,
      project: now?.project as Project,
      view: now?.view as View,
      save,
      version,
      theirs,
      takeTheirs,
      keepMineAsCopy,
      run,
      edit,
      saveNow,
      undo: () => travel(past, setPast, setFuture, "undo"),
      redo: () => travel(future, setFuture, setPast, "redo"),
      canUndo: past.at(-1)?.says ?? null,
      canRedo: future.at(-1)?.says ?? null,
      light,
      watch,
    }),
    [
      id,
      now,
      missing,
      save,
      version,
      theirs,
      takeTheirs,
      keepMineAsCopy,
      run,
      edit,
      saveNow,
      travel,
      past,
      future,
      watch,
    ],
  );
  const actions = useMemo<ProjectActions>(
    () => ({ id, run, edit, saveNow, light, now: () => latest.current as Project }),
    [id, run, edit, saveNow],
  );
  return (
    <Actions.Provider value={actions}>
      <Context.Provider value={value}>{children}</Context.Provider>
    </Actions.Provider>
  );
}
