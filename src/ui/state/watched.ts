/** A worker that is watched: one that dies or stands still is replaced, and whoever waited for it hears of it. */

/** The computation broke or stood still, and was begun anew. */
export class Restarted extends Error {}

/** So long an answer may take before it is asked whether anybody is there; and so long that may take, ms. */
const SILENT_MS = 10_000;
const ALIVE_MS = 10_000;

export interface Watched<T> {
  /** Asks the worker; rejects with `Restarted` when it died or stood still meanwhile. */
  ask<R>(call: (w: T) => Promise<R>): Promise<R>;
}

interface Started<T> {
  api: T;
  /** Answers at once when somebody is there. */
  alive(): Promise<unknown>;
  /** Calls back when it broke. */
  onBroken(broke: () => void): void;
  stop(): void;
}

/** `restarted` is called after each replacement. Long work answers between its slices: it is never taken for one that hangs. */
export function watched<T>(
  start: () => Started<T>,
  restarted: () => void,
  ms = { silent: SILENT_MS, alive: ALIVE_MS },
): Watched<T> {
  let now: Started<T> | undefined;
  let waiting = new Set<(why: Restarted) => void>();
  const replace = (old: Started<T>, why: string) => {
    if (now !== old) return;
    now = undefined;
    old.stop();
    const all = waiting;
    waiting = new Set();
    for (const fail of all) fail(new Restarted(why));
    restarted();
  };
  const here = (): Started<T> => {
    if (now) return now;
    const made = start();
    now = made;
    made.onBroken(() => replace(made, "The computation broke off and was begun anew."));
    return made;
  };
  return {
    ask: <R>(call: (w: T) => Promise<R>) =>
      new Promise<R>((resolve, reject) => {
        const worker = here();
        let timer: ReturnType<typeof setTimeout>;
        const end = () => {
          clearTimeout(timer);
          waiting.delete(fail);
        };
        const fail = (why: Restarted) => {
          end();
          reject(why);
        };
        waiting.add(fail);
        const look = () => {
          timer = setTimeout(() => {
            timer = setTimeout(() => replace(worker, "The computation stood still and was begun anew."), ms.alive);
            void worker.alive().then(() => {
              clearTimeout(timer);
              if (waiting.has(fail)) look();
            });
          }, ms.silent);
        };
        look();
        call(worker.api).then(
          (r) => {
            end();
            resolve(r);
          },
          (e: unknown) => {
            end();
            reject(e instanceof Error ? e : new Error(String(e)));
          },
        );
      }),
  };
}
