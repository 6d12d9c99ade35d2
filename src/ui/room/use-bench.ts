"use client";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { BenchEntry, Project } from "@/core/project";
import type { Control, Did } from "@/core/room";
import { core } from "@/ui/state/core";
import { newId } from "@/ui/state/edit-log";
import { http } from "@/ui/state/http";
import type { Step } from "@/workers/step";
import { makeOutbox, type Heard, type Outbox } from "./outbox";

interface Entered {
  n: number;
  title: string;
  plan: string;
  document: Project;
  control: Control;
  entries: BenchEntry[];
}
export interface BenchLink {
  n: number;
  plan: string;
  first: Step;
  control: Control;
  hand: boolean;
  waiting: number;
  linked: boolean;
  over: string | null;
  tell(did: Did): void;
}

/** How often a bench asks for news, milliseconds; a little other for each, so that not all ask at once. */
const EVERY_MS = 2500;
const OTHER_MS = 500;

/** Entries of the bench's own readings put into the plan of the room; what still waits to be told counts, too. */
function withEntries(
  document: Project,
  entries: readonly BenchEntry[],
  waiting: readonly { did: Did; at: number }[],
): Project {
  const all = new Map(entries.map((e) => [`${e.list} ${e.id}`, e]));
  for (const { did, at } of waiting)
    if (did.kind === "tick")
      all.set(`${did.list} ${did.of}`, {
        at: new Date(at).toISOString(),
        list: did.list,
        id: did.of,
        done: did.done,
        ...(did.reading !== undefined && { reading: did.reading }),
      });
  return { ...document, bench: [...all.values()] };
}

/** The bench's side of a room: enters by its code, keeps talking, goes on without a network. */
export function useBench(code: string): BenchLink | { missing: string } | null {
  const [entered, setEntered] = useState<{ e: Entered; first: Step } | null>(null);
  const [missing, setMissing] = useState<string | null>(null);
  const [over, setOver] = useState<string | null>(null);
  const [, draw] = useState(0);
  const box = useRef<Outbox | null>(null);
  const store = `lattice bench ${code}`;
  useEffect(() => {
    let gone = false;
    void (async () => {
      const r = await http<Entered>("GET", `/api/bench/${encodeURIComponent(code)}`);
      if (gone) return;
      if (r.status !== 200) return setMissing(r.body.message ?? "The room does not answer.");
      const storage = {
        get: () => localStorage.getItem(store),
        set: (t: string) => localStorage.setItem(store, t),
      };
      box.current = makeOutbox({
        async post(body) {
          const a = await http<Heard>("POST", `/api/bench/${encodeURIComponent(code)}`, body);
          return a.status === 200
            ? { ok: true, heard: a.body }
            : { ok: false, gone: a.status === 404, says: a.body.message ?? "" };
        },
        storage,
        control: r.body.control,
        hand: false,
        now: () => Date.now(),
        newId,
        changed: () => draw((n) => n + 1),
        over: setOver,
      });
      let waiting: { did: Did; at: number }[] = [];
      try {
        waiting = JSON.parse(storage.get() ?? "[]") as typeof waiting;
      } catch {
        // Damaged: what the teacher's machine has is what counts.
      }
      const first = (await core().open(withEntries(r.body.document, r.body.entries, waiting))) as Step;
      if (!gone) setEntered({ e: r.body, first });
    })();
    return () => {
      gone = true;
    };
  }, [code, store]);
  useEffect(() => {
    if (!entered || over !== null) return;
    let timer: ReturnType<typeof setTimeout>;
    let gone = false;
    const round = async () => {
      await box.current?.talk();
      if (!gone) timer = setTimeout(() => void round(), EVERY_MS + Math.random() * OTHER_MS);
    };
    void round();
    const back = () => void box.current?.talk();
    window.addEventListener("online", back);
    return () => {
      gone = true;
      clearTimeout(timer);
      window.removeEventListener("online", back);
    };
  }, [entered, over]);
  const tell = useCallback((did: Did) => {
    box.current?.push(did);
    void box.current?.talk();
  }, []);
  const b = box.current;
  const rest = {
    control: b?.control(),
    hand: b?.hand() ?? false,
    waiting: b?.waiting() ?? 0,
    linked: b?.linked() ?? true,
  };
  const fixed = useMemo(() => entered && { n: entered.e.n, plan: entered.e.plan, first: entered.first }, [entered]);
  if (missing !== null) return { missing };
  if (!fixed || !rest.control) return null;
  return { ...fixed, ...rest, control: rest.control, over, tell };
}
