import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Busy, makeQueue, Stopped, type Worker } from "./queue";

interface Fake extends Worker<number, number> {
  jobs: { job: number; done(r: number): void; failed(why: Error): void }[];
  stopped: boolean;
  dead: boolean;
}
const started: Fake[] = [];
function start(): Fake {
  const fake: Fake = {
    jobs: [],
    stopped: false,
    dead: false,
    work: (job, done, failed) => void fake.jobs.push({ job, done, failed }),
    stop: () => void (fake.stopped = true),
    alive: () => !fake.dead,
  };
  started.push(fake);
  return fake;
}
const queue = (more: object = {}) => makeQueue(start, { size: 2, most: 3, most_ms: 1000, idle_ms: 5000, ...more });
const last = (k: number) => started[k]!.jobs.at(-1)!;

beforeEach(() => {
  started.length = 0;
  vi.useFakeTimers();
});
afterEach(() => void vi.useRealTimers());

describe("the queue before the threads", () => {
  it("works so many at once, in the order in which they came, and uses a thread again", async () => {
    const q = queue();
    const all = [1, 2, 3, 4].map((n) => q.run(n));
    expect(started.map((w) => w.jobs.map((j) => j.job))).toEqual([[1], [2]]);
    expect(q.state()).toEqual({ running: 2, waiting: 2 });
    last(1).done(20);
    expect(await all[1]).toBe(20);
    last(1).done(30);
    last(0).done(10);
    last(1).done(40);
    expect(await Promise.all(all)).toEqual([10, 20, 30, 40]);
    expect(started).toHaveLength(2);
    expect(q.state()).toEqual({ running: 0, waiting: 0 });
  });
  it("refuses what is too much with a sentence, and takes in again once there is room", async () => {
    const q = queue();
    const all = [1, 2, 3, 4, 5].map((n) => q.run(n));
    await expect(q.run(6)).rejects.toThrow(Busy);
    last(0).done(1);
    await all[0];
    const late = q.run(7);
    q.end();
    await expect(late).rejects.toThrow(Stopped);
    for (const p of all.slice(1)) await expect(p).rejects.toThrow("stopping");
    expect(started.every((w) => w.stopped)).toBe(true);
  });
  it("gives up what nobody waits for: in the row, and under way", async () => {
    const q = queue({ size: 1 });
    const [first, second] = [new AbortController(), new AbortController()];
    const a = q.run(1, first.signal);
    const b = q.run(2, second.signal);
    const c = q.run(3);
    second.abort();
    await expect(b).rejects.toThrow(Stopped);
    first.abort();
    await expect(a).rejects.toThrow(Stopped);
    expect(started[0]!.stopped).toBe(true);
    // Another thread takes the next; what the ended one still says is not heard.
    started[0]!.jobs[0]!.done(99);
    expect(started[1]!.jobs.map((j) => j.job)).toEqual([3]);
    last(1).done(30);
    expect(await c).toBe(30);
    await expect(q.run(4, first.signal)).rejects.toThrow(Stopped);
  });
  it("a thread that breaks, or takes too long, is replaced and harms nobody else", async () => {
    const q = queue({ size: 1 });
    const [a, b, c] = [q.run(1), q.run(2), q.run(3)];
    last(0).failed(new Error("out of memory"));
    await expect(a).rejects.toThrow("out of memory");
    vi.advanceTimersByTime(1001);
    await expect(b).rejects.toThrow("longer than 1 s");
    last(2).done(3);
    expect(await c).toBe(3);
    expect(started.map((w) => w.stopped)).toEqual([true, true, false]);
  });
  it("starts one ahead where that is asked for, and uses it", async () => {
    const q = queue();
    q.warm();
    q.warm();
    expect(started).toHaveLength(1);
    const a = q.run(1);
    last(0).done(1);
    expect(await a).toBe(1);
    expect(started).toHaveLength(1);
    q.end();
  });
  it("does not give work to one that died while it rested", async () => {
    const q = queue();
    q.warm();
    started[0]!.dead = true;
    const a = q.run(1);
    expect(started).toHaveLength(2);
    last(1).done(1);
    expect(await a).toBe(1);
    q.end();
  });
  it("ends a thread that has nothing to do for a while", async () => {
    const q = queue();
    const a = q.run(1);
    last(0).done(1);
    await a;
    vi.advanceTimersByTime(4999);
    expect(started[0]!.stopped).toBe(false);
    vi.advanceTimersByTime(2);
    expect(started[0]!.stopped).toBe(true);
    const b = q.run(2);
    expect(started).toHaveLength(2);
    q.end();
    await expect(b).rejects.toThrow(Stopped);
  });
});
