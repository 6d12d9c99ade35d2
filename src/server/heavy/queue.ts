/** A thread as the queue sees it: one job at a time; `failed` is said when it broke, or when its job did. */
export interface Worker<J, R> {
  work(job: J, done: (r: R) => void, failed: (why: Error) => void): void;
  stop(): void;
  /** False once it has ended by itself. */
  alive(): boolean;
}

/** No more is taken in: the sentence is for the person. */
export class Busy extends Error {}
/** Whoever asked has gone, or it took too long. */
export class Stopped extends Error {}

interface Waiting<J, R> {
  job: J;
  done(r: R): void;
  failed(why: Error): void;
}

export interface Queue<J, R> {
  /** Rejects with `Busy` when too many wait, with `Stopped` when `gone` says so or its time is over. */
  run(job: J, gone?: AbortSignal): Promise<R>;
  state(): { running: number; waiting: number };
  /** Starts a worker before anybody asks, so that the first one does not wait for it. */
  warm(): void;
  /** Ends all threads; what was under way is stopped. */
  end(): void;
}

/**
 * Jobs wait for one of `size` workers, in the order in which they came; `most` may wait. A worker whose job is no longer wanted,
 * or takes longer than `most_ms`, is ended, and another takes its place. One that has nothing to do for `idle_ms` is ended too.
 */
export function makeQueue<J, R>(
  start: () => Worker<J, R>,
  o: { size: number; most: number; most_ms: number; idle_ms: number },
): Queue<J, R> {
  const waiting: Waiting<J, R>[] = [];
  const idle: { worker: Worker<J, R>; timer: ReturnType<typeof setTimeout> }[] = [];
  const running = new Set<{ worker: Worker<J, R>; end(why: Error): void }>();

  const rest = (worker: Worker<J, R>) => {
    const timer = setTimeout(() => {
      idle.splice(
        idle.findIndex((x) => x.worker === worker),
        1,
      );
      worker.stop();
    }, o.idle_ms);
    timer.unref?.();
    idle.push({ worker, timer });
  };
  const next = () => {
    while (waiting.length && running.size < o.size) begin(waiting.shift()!);
  };
  const begin = (w: Waiting<J, R>) => {
    let there = idle.pop();
    for (; there && !there.worker.alive(); there = idle.pop()) clearTimeout(there.timer);
    if (there) clearTimeout(there.timer);
    const worker = there?.worker ?? start();
    let open = true;
    const close = (keep: boolean, then: () => void) => {
      if (!open) return;
      open = false;
      clearTimeout(limit);
      running.delete(here);
      if (keep) rest(worker);
      else worker.stop();
      then();
      next();
    };
    const here = { worker, end: (why: Error) => close(false, () => w.failed(why)) };
    const limit = setTimeout(
      () => here.end(new Stopped(`This took longer than ${Math.round(o.most_ms / 1000)} s and was stopped.`)),
      o.most_ms,
    );
    running.add(here);
    // What else wants to end it finds it here.
    (w as Waiting<J, R> & { here?: typeof here }).here = here;
    worker.work(
      w.job,
      (r) => close(true, () => w.done(r)),
      (why) => close(false, () => w.failed(why)),
    );
  };

  return {
    run: (job, gone) =>
      new Promise<R>((done, failed) => {
        if (gone?.aborted) return failed(new Stopped("Nobody waits for it any more."));
        if (running.size >= o.size && waiting.length >= o.most)
          return failed(new Busy("Many plans are being made on this machine at this moment. Try again in a minute."));
        const w: Waiting<J, R> & { here?: { end(why: Error): void } } = { job, done, failed };
        gone?.addEventListener(
          "abort",
          () => {
            const why = new Stopped("Nobody waits for it any more.");
            const at = waiting.indexOf(w);
            if (at >= 0) {
              waiting.splice(at, 1);
              failed(why);
            } else w.here?.end(why);
          },
          { once: true },
        );
        waiting.push(w);
        next();
      }),
    state: () => ({ running: running.size, waiting: waiting.length }),
    warm() {
      if (!idle.length && !running.size) rest(start());
    },
    end() {
      const why = new Stopped("The app is stopping.");
      for (const w of waiting.splice(0)) w.failed(why);
      for (const r of [...running]) r.end(why);
      for (const { worker, timer } of idle.splice(0)) {
        clearTimeout(timer);
        worker.stop();
      }
    },
  };
}
