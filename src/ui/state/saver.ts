import type { Clash, Picks, Project } from "@/core/project";
import type { Step } from "@/workers/step";
import type { Kept } from "./edit-log";
import type { HttpAnswer } from "./http";

export type SaveState = "saved" | "unsaved" | "saving" | "stale" | "failed";

/** What somebody else saved meanwhile. */
export interface Theirs {
  version: number;
  document: Project;
  /** The version that this is, where the newest one is damaged. */
  from?: number;
}
/** Both sides changed the same things: the person is asked. */
export interface Asked {
  theirs: Theirs;
  clashes: readonly Clash[];
  /** Why the two do not make one project, where choosing does not help. */
  problem: string | null;
}
export interface Met {
  step: Step | null;
  clashes: readonly Clash[];
  notes: readonly string[];
  problem: string | null;
}
interface Pending {
  project: Project;
  says: string;
  saveId: string;
  /** This side alone, where it was put together with another: it stays as a version. */
  side?: Project;
}
interface PutBody {
  base: number;
  document: Project;
  summary: string;
  saveId: string;
  side?: Project;
}

/** What the saver stands on. */
export interface Ground {
  put(body: PutBody, leaving: boolean): Promise<HttpAnswer<{ version: number; document: Project }>>;
  get(): Promise<HttpAnswer<Theirs>>;
  log: {
    put(k: Omit<Kept, "tab" | "at" | "id">): Promise<void>;
    saved(saveId: string): Promise<void>;
    drop(k: Kept): Promise<void>;
    left(): Promise<Kept[]>;
  };
  merge(mine: Project, before: Project, theirs: Project, picks: Picks): Promise<Met>;
  open(project: Project): Promise<Step>;
  /** The project as it is shown. */
  latest(): Project | null;
  /** Waits for the edits that are under way, and lets none in until it is done. */
  queued<T>(work: () => Promise<T>): Promise<T>;
  /** Shows a step; `says` is what undo would take back, null where nothing can be. */
  show(step: Step, says: string | null): void;
  state(s: SaveState, version: number): void;
  ask(asked: Asked | null): void;
  tell(kind: "fine" | "trouble", text: string): void;
  /** Tells other tabs. */
  saved(version: number): void;
  newId(): string;
  same(a: Project, b: Project): boolean;
}

const SAVE_AFTER_MS = 350;
const RETRY_AFTER_MS = 4000;
const SUMMARY_CHARS = 300;

/**
 * Keeps every change: written down here before the server is asked, sent under an id of its own until an answer comes, put together
 * with what others saved meanwhile. `saved` is only said when the server has said so of what is shown.
 */
export function makeSaver(g: Ground) {
  let base = 0;
  let before: Project | null = null;
  let pending: Pending | null = null;
  /** Sent, and no answer came yet: it may be there or not. */
  let unsure: Pending | null = null;
  let saving = false;
  let asked: Asked | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const state = (s: SaveState) => g.state(s, base);
  const ask = (a: Asked | null) => {
    asked = a;
    g.ask(a);
  };
  const stand = (version: number, document: Project) => {
    base = version;
    before = document;
  };
  const writeDown = (p: Pending) => {
    const { saveId, says, project: document } = p;
    const first = unsure && unsure.saveId !== saveId ? unsure : null;
    void g.log.put({
      base,
      before: before!,
      document,
      says,
      saveId,
      ...(first && { first: { document: first.project, says: first.says, saveId: first.saveId } }),
    });
  };
  const later = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => void flush(), ms);
  };

  const changed = (project: Project, says: string, side = pending?.side) => {
    pending = { project, says, saveId: g.newId(), ...(side && { side }) };
    writeDown(pending);
    state(asked ? "stale" : "unsaved");
    if (!asked) later(SAVE_AFTER_MS);
  };

  /** Both together: shown, and to be saved on top of theirs. */
  const joined = (met: Met & { step: Step }, theirs: Theirs, mine: Project, says: string) => {
    stand(theirs.version, theirs.document);
    ask(null);
    g.show(met.step, says);
    for (const n of met.notes) g.tell("trouble", n);
    pending = null;
    if (g.same(met.step.project, theirs.document)) return state("saved");
    changed(met.step.project, says, mine);
  };

  /** Somebody else has saved: put together, or asked. */
  const meet = (theirs: Theirs) =>
    g.queued(async () => {
      const mine = g.latest()!;
      const met = await g.merge(mine, before!, theirs.document, {});
      if (met.step) {
        joined({ ...met, step: met.step }, theirs, mine, "put together with a change made elsewhere");
        g.tell("fine", "Put together with what was changed elsewhere meanwhile.");
        return;
      }
      ask({ theirs, clashes: met.clashes, problem: met.problem });
      state("stale");
    });

  const put = (p: Pending, leaving: boolean) => {
    const { project: document, saveId, side } = p;
    const summary = p.says.slice(0, SUMMARY_CHARS);
    return g.put({ base, document, summary, saveId, ...(side && { side }) }, leaving);
  };
  const away = (status: number) => status === 0 || status >= 500;

  const failed = (p: Pending, r: HttpAnswer<unknown>): "stop" => {
    pending ??= p;
    state("failed");
    g.tell("trouble", r.body.message ?? "Not saved.");
    if (away(r.status)) later(RETRY_AFTER_MS);
    return "stop";
  };

  const send = async (p: Pending, leaving: boolean): Promise<"on" | "stop"> => {
    state("saving");
    // What was sent before and never answered comes first: it is known there, or it is not.
    if (unsure && unsure.saveId !== p.saveId) {
      const r = await put(unsure, leaving);
      if (away(r.status)) return failed(p, r);
      if (r.status === 200) stand(r.body.version, unsure.project);
    }
    unsure = p;
    const r = await put(p, leaving);
    if (away(r.status)) return failed(p, r);
    unsure = null;
    if (r.status === 200) {
      stand(r.body.version, p.project);
      await g.log.saved(p.saveId);
      g.saved(base);
      // What was changed meanwhile stands on this one now.
      if (pending) writeDown(pending);
      else state("saved");
      return "on";
    }
    if (r.status !== 409) return failed(p, r);
    pending ??= p;
    await meet(r.body);
    return asked ? "stop" : "on";
  };

  const flush = async (leaving = false): Promise<void> => {
    if (saving) return;
    saving = true;
    try {
      while (pending && !asked) {
        const p: Pending = pending;
        pending = null;
        if ((await send(p, leaving)) === "stop") break;
      }
    } finally {
      saving = false;
    }
  };

  /** A change that was left behind is sent once more; what was known already is answered as the first time. Null: it is there. */
  const resend = async (k: Kept): Promise<Kept | "kept" | null> => {
    const again = (x: Pick<Kept, "document" | "says" | "saveId">, onto: number) =>
      g.put({ base: onto, document: x.document, summary: x.says.slice(0, SUMMARY_CHARS), saveId: x.saveId }, false);
    let now = k;
    if (k.first) {
      const r = await again(k.first, k.base);
      if (r.status === 200) now = { ...k, base: r.body.version, before: k.first.document };
      else if (r.status !== 409) return "kept";
    }
    const r = await again(now, now.base);
    if (r.status === 409) return now;
    if (r.status !== 200) return "kept";
    await g.log.drop(k);
    return null;
  };

  /** One that was left behind and that others have saved over: put together with what is there now. */
  const bringBack = async (k: Kept, theirs: Theirs): Promise<void> => {
    const met = await g.merge(k.document, k.before, theirs.document, {});
    if (met.step) {
      joined({ ...met, step: met.step }, theirs, k.document, k.says);
      await g.log.drop(k);
      return;
    }
    stand(k.base, k.before);
    g.show(await g.open(k.document), null);
    ask({ theirs, clashes: met.clashes, problem: met.problem });
    changed(k.document, k.says);
    await g.log.drop(k);
  };

  return {
    changed,
    flush,
    /** Opens what is stored, with what was not saved when pages of it were closed. Null, or why it can't be opened. */
    async open(): Promise<string | null> {
      const left = await g.log.left();
      const apart: Kept[] = [];
      let back = 0;
      for (const k of left) {
        const how = await resend(k);
        if (how === null) back++;
        else if (how !== "kept") apart.push(how);
      }
      const r = await g.get();
      if (r.status !== 200) return r.body.message ?? "This project can't be opened.";
      stand(r.body.version, r.body.document);
      g.show(await g.open(r.body.document), null);
      state("saved");
      if (r.body.from !== undefined)
        g.tell(
          "trouble",
          `The newest version of this project is damaged. This is version ${r.body.from}, the last that can be read.`,
        );
      for (const k of apart) {
        // While the person is asked about one, the others stay written down.
        if (asked) break;
        await bringBack(k, { version: base, document: g.latest()! });
        await flush();
        back++;
      }
      if (back) g.tell("fine", "What was not saved when this page was closed is back.");
      return null;
    },
    /** Somebody else may have saved: followed when nothing of ours is open. */
    async follow(): Promise<void> {
      const busy = () => pending !== null || saving || asked !== null;
      if (busy() || !before) return;
      const r = await g.get();
      if (r.status !== 200 || r.body.version === base || busy()) return;
      await g.queued(async () => {
        if (busy() || r.body.version === base) return;
        const same = g.same(r.body.document, g.latest()!);
        stand(r.body.version, r.body.document);
        if (!same) g.show(await g.open(r.body.document), "a change made elsewhere");
        state("saved");
      });
    },
    /** The person has chosen. */
    async answer(picks: Picks): Promise<void> {
      await g.queued(async () => {
        if (!asked) return;
        const { theirs } = asked;
        const mine = g.latest()!;
        const met = await g.merge(mine, before!, theirs.document, picks);
        if (met.step) joined({ ...met, step: met.step }, theirs, mine, "put together with a change made elsewhere");
        else ask({ theirs, clashes: met.clashes, problem: met.problem });
      });
      await flush();
    },
    /** Theirs as it is; ours stays in the list of what can be undone. */
    takeTheirs: () =>
      g.queued(async () => {
        if (!asked) return;
        const { theirs } = asked;
        if (pending) await g.log.saved(pending.saveId);
        pending = null;
        stand(theirs.version, theirs.document);
        ask(null);
        g.show(await g.open(theirs.document), "the newer version shown");
        state("saved");
      }),
    idle: () => !saving,
  };
}
export type Saver = ReturnType<typeof makeSaver>;
