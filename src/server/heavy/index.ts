/** Heavy work beside the server: plans, prints and looks at whole projects are made in threads, so that light requests never wait. */
import os from "node:os";
import path from "node:path";
import { Worker as Thread } from "node:worker_threads";
import type { Job, Made } from "./jobs";
import { makeQueue, type Queue, type Worker } from "./queue";

export { Busy, Stopped } from "./queue";
export type { Job, Made } from "./jobs";

const LIMITS = { most: 60, most_ms: 120_000, idle_ms: 60_000 };
/** One processor stays for the server itself. */
const SIZE = Math.max(1, Math.min(4, os.availableParallelism() - 1));

function start(): Worker<Job, Made> {
  const thread = new Thread(path.join(/* turbopackIgnore: true */ process.cwd(), "bin", "heavy.mjs"));
  thread.unref();
  let stopped = false;
  let ended = false;
  let failed: ((why: Error) => void) | undefined;
  thread.on("error", (e) => failed?.(e));
  thread.on("exit", () => {
    ended = true;
    if (!stopped) failed?.(new Error("a thread ended by itself"));
  });
  return {
    work(job, done, fails) {
      failed = fails;
      thread.once("message", (m: Made | { failed: string }) => ("failed" in m ? fails(new Error(m.failed)) : done(m)));
      thread.postMessage(job);
    },
    alive: () => !ended,
    stop() {
      stopped = true;
      void thread.terminate();
    },
  };
}

/** Which row a kind of job waits in: a look at a project never waits behind plans that take seconds. */
const ROW: Record<Job["kind"], "short" | "long"> = {
  glance: "short",
  print: "long",
  lesson: "long",
  course: "long",
  plan: "long",
};

function makeRows(): Queue<Job, Made> {
  const rows = { short: makeQueue(start, { size: 1, ...LIMITS }), long: makeQueue(start, { size: SIZE, ...LIMITS }) };
  return {
    run: (job, gone) => rows[ROW[job.kind]].run(job, gone),
    state: () => rows.long.state(),
    // The first page asks at once how its projects stand.
    warm: () => rows.short.warm(),
    end: () => Object.values(rows).forEach((q) => q.end()),
  };
}

const holder = globalThis as typeof globalThis & { latticeHeavy?: Queue<Job, Made> };
/** One set of rows in a process, however often this file is loaded. */
export const heavy = (): Queue<Job, Made> => (holder.latticeHeavy ??= makeRows());
