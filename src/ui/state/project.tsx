"use client";
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { toast } from "sonner";
import type { Edit, Picks, Project } from "@/core/project";
import type { Step } from "@/workers/step";
import type { Slice, View } from "@/workers/view";
import { core, look, onRestart } from "./core";
import { editLog, newId } from "./edit-log";
import { http } from "./http";
import { light } from "./lit";
import { makeSaver, type Asked, type Met, type SaveState } from "./saver";

export type { SaveState } from "./saver";

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
  /** What somebody else saved and what of it has to be chosen, when both changed the same. */
  asked: Asked | null;
  /** The choices, by the clashes' keys. */
  putTogether(picks: Picks): Promise<void>;
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

/** For providers of other kinds only: everybody else asks by the hooks below. */
export const Context = createContext<ProjectState | null>(null);
export const Actions = createContext<ProjectActions | null>(null);
/** A page that is left can send no more than this, bytes; a larger change is written down here and sent at the next opening. */
const LEAVING_BYTES = 60_000;
/** What is only wanted once something is changed is fetched when the page can be used already, ms. */
const READY_MS = 1500;
/** Other tabs of this browser hear here what was saved. */
const CHANNEL = "young-lattice";

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
  const [asked, setAsked] = useState<Asked | null>(null);
  const [version, setVersion] = useState(0);
  const latest = useRef<Project | null>(null);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const watched = useRef(new Map<Slice, number>());
  const looking = useRef(false);

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

  /** In the order of the edits: what is under way comes first, and what comes waits. */
  const queued = useCallback(<T,>(work: () => Promise<T>): Promise<T> => {
    const job = queue.current.then(work);
    queue.current = job.catch(() => undefined);
    return job;
  }, []);

  const saver = useMemo(() => {
    const others = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel(CHANNEL);
    const made = makeSaver({
      put: (body, leaving) => {
        const small = leaving && new Blob([JSON.stringify(body)]).size < LEAVING_BYTES;
        return http("PUT", `/api/projects/${id}`, body, small);
      },
      get: () => http("GET", `/api/projects/${id}`),
      log: {
        put: (k) => editLog.put({ ...k, id }),
        saved: (saveId) => editLog.saved(id, saveId),
        drop: (k) => editLog.drop(k),
        left: () => editLog.left(id),
      },
      merge: (mine, before, theirs, picks) =>
        core().merge(mine, JSON.stringify(before), JSON.stringify(theirs), picks) as Promise<Met>,
      open: (project) => core().open(project) as Promise<Step>,
      latest: () => latest.current,
      queued,
      show(step, says) {
        const was = latest.current;
        show(step);
        if (says === null || !was) return;
        setPast((p) => [...p.slice(-199), { project: was, says }]);
        setFuture([]);
      },
      state(s, v) {
        setSave(s);
        setVersion(v);
        if (s === "saved") toast.dismiss("save");
      },
      ask: setAsked,
      tell: (kind, text) => void (kind === "fine" ? toast(text) : toast.error(text, { id: "save" })),
      saved: (v) => others?.postMessage({ id, version: v }),
      newId,
      same: (x, y) => JSON.stringify(x) === JSON.stringify(y),
    });
    return { ...made, others };
  }, [id, queued, show]);

  useEffect(() => {
    const { others, follow } = saver;
    const heard = (e: MessageEvent) => (e.data as { id?: unknown } | null)?.id === id && void follow();
    const seen = () => document.visibilityState === "visible" && void follow();
    others?.addEventListener("message", heard);
    document.addEventListener("visibilitychange", seen);
    return () => {
      others?.removeEventListener("message", heard);
      document.removeEventListener("visibilitychange", seen);
    };
  }, [id, saver]);

  const { flush, changed: schedule } = saver;
  const saveNow = useCallback(async () => {
    await queue.current;
    // A save that is on its way takes the newest change along before it ends.
    for (let i = 0; i < 100 && !saver.idle(); i++) await new Promise((r) => setTimeout(r, 30));
    await flush();
  }, [flush, saver]);

  useEffect(() => {
    let gone = false;
    void core()
      .ready()
      .catch(() => undefined);
    void (async () => {
      const why = await saver.open().catch((e: unknown) => (e instanceof Error ? e.message : String(e)));
      if (gone) return;
      if (why !== null) return setMissing(why);
      setTimeout(() => editLog.ready(), READY_MS);
      if (watched.current.size) void lookAgain();
    })();
    return () => {
      gone = true;
    };
  }, [saver, lookAgain]);

  // The computation was begun anew: what is shown is worked out again from the project, which is all here.
  useEffect(
    () =>
      onRestart(() => {
        toast.warning("The computation stood still and was begun anew. Your project is as it was.", { id: "restart" });
        void queued(async () => {
          const here = latest.current;
          if (here) show((await core().open(here)) as Step);
        }).then(lookAgain, () => undefined);
      }),
    [queued, show, lookAgain],
  );

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
      asked,
      putTogether: saver.answer,
      takeTheirs: saver.takeTheirs,
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
    [id, now, missing, save, version, asked, saver, keepMineAsCopy, run, edit, saveNow, travel, past, future, watch],
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
