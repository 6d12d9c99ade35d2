"use client";
import type { IDBPDatabase } from "idb";
import type { Project } from "@/core/project";

/** What was changed here and is not known to be saved: written down before the server is asked. */
export interface Kept {
  /** The project. */
  id: string;
  /** The tab that it was changed in. */
  tab: string;
  /** The version that it was changed from, and what that was. */
  base: number;
  before: Project;
  document: Project;
  says: string;
  /** The same save is known by it, however often it is sent. */
  saveId: string;
  /** A save before this one whose answer has not come: whether it is there is not known. */
  first?: { document: Project; says: string; saveId: string };
  at: number;
}

const STORE = "changes";
let opened: Promise<IDBPDatabase | null> | undefined;
async function open(): Promise<IDBPDatabase | null> {
  try {
    const { openDB } = await import("idb");
    return await openDB("young-lattice", 1, {
      upgrade: (d) => void d.createObjectStore(STORE),
      // Another tab with a newer version of the program wants it.
      blocking: (_a, _b, e) => {
        (e.target as IDBDatabase | null)?.close();
        opened = undefined;
      },
    });
  } catch {
    // Its script did not come, or the browser keeps nothing: it is tried again next time.
    opened = undefined;
    return null;
  }
}
/** Null where the browser keeps nothing, as in some private windows: then the server alone does. */
const db = (): Promise<IDBPDatabase | null> => (opened ??= open());

/** Says that something of a project is written down, so that a page that opens need not look where nothing is. */
const flag = {
  name: (id: string) => `lattice-left ${id}`,
  /** True where that can't be known. */
  up(id: string): boolean {
    try {
      return localStorage.getItem(flag.name(id)) !== null;
    } catch {
      return true;
    }
  },
  set(id: string, up: boolean): void {
    try {
      if (up) localStorage.setItem(flag.name(id), "1");
      else localStorage.removeItem(flag.name(id));
    } catch {
      // It is looked for every time then.
    }
  },
};
/** Takes the flag down when nothing of any tab is left. */
async function lower(d: IDBPDatabase | null, id: string): Promise<void> {
  const keys = ((await d?.getAllKeys(STORE)) ?? []) as string[];
  if (!keys.some((k) => k.startsWith(`${id} `))) flag.set(id, false);
}

const key = (id: string, tab: string) => `${id} ${tab}`;
export const newId = (): string => {
  const bytes = crypto.getRandomValues(new Uint8Array(12));
  return [...bytes].map((b) => b.toString(36).padStart(2, "0")).join("");
};

/** Locks are known where the page counts as safe, which this machine's own address does. */
const locks = () => (typeof navigator === "undefined" ? undefined : navigator.locks);
const lockName = (tab: string) => `young-lattice tab ${tab}`;
let mine: Promise<string> | undefined;

/** This tab's own name, held as long as the tab lives; the same after a reload. A copy of a tab gets another. */
export function tabId(): Promise<string> {
  return (mine ??= (async () => {
    const hold = (tab: string) =>
      new Promise<boolean>((resolve) => {
        const l = locks();
        if (!l) return resolve(true);
        void l
          .request(lockName(tab), { ifAvailable: true }, (lock) => {
            resolve(lock !== null);
            return lock ? new Promise<never>(() => undefined) : undefined;
          })
          .catch(() => resolve(true));
      });
    let tab: string | null = null;
    try {
      tab = sessionStorage.getItem("lattice-tab");
    } catch {
      // Nothing is kept here.
    }
    if (!tab || !(await hold(tab))) {
      tab = newId();
      await hold(tab);
    }
    try {
      sessionStorage.setItem("lattice-tab", tab);
    } catch {
      // Nothing is kept here.
    }
    return tab;
  })());
}

async function closed(tab: string, own: string): Promise<boolean> {
  if (tab === own) return true;
  const l = locks();
  if (!l) return false;
  const held = (await l.query()).held ?? [];
  return !held.some((x) => x.name === lockName(tab));
}

/** What is not known to be saved of each project, by tab. None of these throws: what can't be kept here the server still gets. */
export const editLog = {
  /** Fetches what it stands on while the server is there: it is wanted most when that is gone. */
  ready: (): void => void db(),
  async put(k: Omit<Kept, "tab" | "at">): Promise<void> {
    flag.set(k.id, true);
    try {
      const tab = await tabId();
      await (await db())?.put(STORE, { ...k, tab, at: Date.now() } satisfies Kept, key(k.id, tab));
    } catch {
      // Full, or not allowed.
    }
  },
  /** Forgets a save of this tab, unless a later one stands there already. */
  async saved(id: string, saveId: string): Promise<void> {
    try {
      const d = await db();
      const tab = await tabId();
      const tx = d?.transaction(STORE, "readwrite");
      const there = (await tx?.store.get(key(id, tab))) as Kept | undefined;
      if (there?.saveId === saveId) await tx?.store.delete(key(id, tab));
      await tx?.done;
      await lower(d, id);
    } catch {
      // It is sent once more at the next opening, and known there.
    }
  },
  async drop(k: Kept): Promise<void> {
    try {
      const d = await db();
      await d?.delete(STORE, key(k.id, k.tab));
      await lower(d, k.id);
    } catch {
      // As above.
    }
  },
  /** What tabs that are closed now, and this one before it was loaded anew, have left behind; oldest first. */
  async left(id: string): Promise<Kept[]> {
    if (!flag.up(id)) return [];
    try {
      const own = await tabId();
      const d = await db();
      const all = ((await d?.getAll(STORE)) ?? []) as Kept[];
      const here = all.filter((k) => k.id === id);
      const free = await Promise.all(here.map((k) => closed(k.tab, own)));
      return here.filter((_, i) => free[i]).sort((a, b) => a.at - b.at);
    } catch {
      return [];
    }
  },
};
