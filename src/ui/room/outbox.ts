import type { Control, Did } from "@/core/room";

/** What waits to be told, with when it was by this bench's own clock. */
interface Waiting {
  id: string;
  at: number;
  did: Did;
}
export interface Heard {
  got: string[];
  control: Control | null;
  hand: boolean;
}
export type Answer = { ok: true; heard: Heard } | { ok: false; gone: boolean; says: string };

export interface Outbox {
  /** Puts something in line; it is told as soon as the network allows, also after the page was closed and opened again. */
  push(did: Did): void;
  /** Tells what waits and hears what is new. One at a time: while one is under way, it is the same one. */
  talk(): Promise<void>;
  waiting(): number;
  /** Whether the last try reached the teacher's machine. */
  linked(): boolean;
  control(): Control;
  hand(): boolean;
}

/** So many are told at a time; the rest follows at once. */
const AT_ONCE = 100;

/**
 * What a bench has to tell, kept until it was heard. Nothing is lost without a network: it is kept in `storage`, and told with how
 * long ago it was, so that clocks need not agree. What was told twice counts once.
 */
export function makeOutbox(o: {
  post(body: { events: { id: string; ago_ms: number; did: Did }[]; rev: number }): Promise<Answer>;
  storage: { get(): string | null; set(text: string): void };
  control: Control;
  hand: boolean;
  now(): number;
  newId(): string;
  changed(): void;
  /** The room is gone. */
  over(says: string): void;
}): Outbox {
  const read = (): Waiting[] => {
    try {
      const list: unknown = JSON.parse(o.storage.get() ?? "[]");
      return Array.isArray(list) ? (list as Waiting[]).filter((w) => w && typeof w.id === "string" && w.did) : [];
    } catch {
      return [];
    }
  };
  let list = read();
  let control = o.control;
  let hand = o.hand;
  let linked = true;
  let busy: Promise<void> | null = null;
  const keep = () => o.storage.set(JSON.stringify(list));
  const once = async (): Promise<boolean> => {
    const now = o.now();
    const batch = list.slice(0, AT_ONCE);
    const a = await o.post({
      events: batch.map((w) => ({
        id: w.id,
        ago_ms: Math.min(86_400_000, Math.max(0, Math.round(now - w.at))),
        did: w.did,
      })),
      rev: control.rev,
    });
    const was = linked;
    linked = a.ok;
    if (!a.ok) {
      if (a.gone) o.over(a.says);
      if (was) o.changed();
      return false;
    }
    const got = new Set(a.heard.got);
    list = list.filter((w) => !got.has(w.id));
    keep();
    if (a.heard.control) control = a.heard.control;
    const other = hand !== a.heard.hand && !list.some((w) => w.did.kind === "hand");
    if (other) hand = a.heard.hand;
    if (a.heard.control || other || batch.length || !was) o.changed();
    return list.length > 0;
  };
  const run = async () => {
    while (await once());
  };
  return {
    push(did) {
      list.push({ id: o.newId(), at: o.now(), did });
      if (did.kind === "hand") hand = did.up;
      keep();
      o.changed();
    },
    talk: () =>
      (busy ??= run().finally(() => {
        busy = null;
      })),
    waiting: () => list.length,
    linked: () => linked,
    control: () => control,
    hand: () => hand,
  };
}
