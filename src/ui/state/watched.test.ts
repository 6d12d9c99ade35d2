import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Restarted, watched } from "./watched";

interface Fake {
  calls: { resolve(v: number): void; reject(e: Error): void }[];
  hears: boolean;
  broke(): void;
  stopped: boolean;
}
const made: Fake[] = [];
let restarts = 0;
const start = () => {
  const f: Fake = { calls: [], hears: true, broke: () => undefined, stopped: false };
  made.push(f);
  return {
    api: { work: () => new Promise<number>((resolve, reject) => f.calls.push({ resolve, reject })) },
    alive: () => (f.hears ? Promise.resolve() : new Promise<never>(() => undefined)),
    onBroken: (b: () => void) => void (f.broke = b),
    stop: () => void (f.stopped = true),
  };
};
const make = () => watched(start, () => restarts++, { silent: 100, alive: 50 });

beforeEach(() => {
  made.length = restarts = 0;
  vi.useFakeTimers();
});
afterEach(() => void vi.useRealTimers());

describe("a worker that is watched", () => {
  it("answers, and tells its own errors as they are", async () => {
    const w = make();
    const [a, b] = [w.ask((x) => x.work()), w.ask((x) => x.work())];
    made[0]!.calls[1]!.reject(new Error("no such part"));
    made[0]!.calls[0]!.resolve(7);
    expect(await a).toBe(7);
    await expect(b).rejects.toThrow("no such part");
    await vi.advanceTimersByTimeAsync(1000);
    expect(restarts).toBe(0);
  });
  it("long work that still hears is left alone", async () => {
    const w = make();
    const a = w.ask((x) => x.work());
    await vi.advanceTimersByTimeAsync(5000);
    expect(restarts).toBe(0);
    made[0]!.calls[0]!.resolve(1);
    expect(await a).toBe(1);
  });
  it("one that stands still is replaced, everybody who waits hears of it, and the next call works", async () => {
    const w = make();
    const both = [w.ask((x) => x.work()), w.ask((x) => x.work())].map((p) => p.catch((e: unknown) => e));
    made[0]!.hears = false;
    await vi.advanceTimersByTimeAsync(149);
    expect(restarts).toBe(0);
    await vi.advanceTimersByTimeAsync(2);
    for (const e of await Promise.all(both)) expect(e).toBeInstanceOf(Restarted);
    expect([made[0]!.stopped, restarts]).toEqual([true, 1]);
    const again = w.ask((x) => x.work());
    made[1]!.calls[0]!.resolve(3);
    expect(await again).toBe(3);
    await vi.advanceTimersByTimeAsync(1000);
    expect(restarts).toBe(1);
  });
  it("one that breaks is replaced at once; what breaks twice counts once", async () => {
    const w = make();
    const a = w.ask((x) => x.work()).catch((e: unknown) => e);
    made[0]!.broke();
    made[0]!.broke();
    expect(await a).toBeInstanceOf(Restarted);
    expect(restarts).toBe(1);
  });
});
