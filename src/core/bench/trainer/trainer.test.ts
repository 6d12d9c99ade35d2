import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { catalogue } from "../../testing";
import { isTold, reasonOf, type Observation } from "../reason";
import { BENCHES } from "../reason/cases";
import { simulatedBench } from "../simulated/bench";
import { complaint, deal, isIt, levelsOf, LEVELS, replay, scoreOf } from "./trainer";
import { seedOf } from "./seed";

const all = Object.entries(BENCHES).map(([name, p]) => [name, circuitOf(p(), catalogue)] as const);

describe("faults dealt to learners", () => {
  it.each(all)("%s: each level hides something that shows, the same for the same seed", (_, c) => {
    const levels = levelsOf(c);
    expect(levels.length).toBeGreaterThanOrEqual(3);
    for (const level of levels)
      for (let seed = 0; seed < 6; seed++) {
        const d = deal(c, level, seed);
        if (!d) continue;
        expect(deal(c, level, seed)!.faults.map((f) => f.id)).toEqual(d.faults.map((f) => f.id));
        expect(d.faults).toHaveLength(level === "two" ? 2 : 1);
        expect(complaint(c, d).length, `${level} ${seed} ${d.faults[0]!.id}`).toBeGreaterThan(0);
        for (const f of d.faults) expect(isIt(c, d, f.id)).toBe(true);
        const kinds: readonly string[] = LEVELS.find((l) => l.id === level)!.kinds;
        if (kinds.length) expect(kinds).toContain(d.faults[0]!.kind);
      }
  });
  it("seeds deal different faults, and a set deals each bench its own or all the same", () => {
    const c = all[1]![1];
    const dealt = Array.from({ length: 12 }, (_, i) => deal(c, "continuity", seedOf(7, i))!.faults[0]!.id);
    expect(new Set(dealt).size).toBeGreaterThan(6);
    expect(seedOf(7, 0)).toBe(seedOf(7, 0));
  });
  it("who measures what tells most, hint after hint, finds every one that is dealt; nothing named wrongly passes", () => {
    const c = all[1]![1];
    const r = reasonOf(c);
    for (let seed = 0; seed < 8; seed++) {
      const d = deal(c, LEVELS[seed % 4]!.id, seed)!;
      const bench = simulatedBench(c, d.change);
      const seen: Observation[] = [...bench.bringUp().seen];
      for (let step = 0; step < 30; step++) {
        const j = r.judge(seen, { wrong: true });
        if (!j.next) break;
        const q = j.next.q;
        if (isTold(q)) break;
        bench.power(q.kind === "volt");
        const shows = bench.meter(q.kind as "beep", (q as { a: string }).a, (q as { b: string }).b)!;
        seen.push({ q: shows.q, seen: shows.seen });
      }
      const top = r.judge(seen, { wrong: true }).suspects[0]!;
      expect(isIt(c, d, top.faults[0]!.id), d.faults[0]!.id).toBe(true);
      expect(
        isIt(
          c,
          d,
          r.singles.find((h) => h.faults[0] && h.faults[0].kind !== d.faults[0]!.kind && !isIt(c, d, h.faults[0].id))!
            .faults[0]!.id,
        ),
      ).toBe(false);
    }
  });
  it("the score falls with measurements that tell nothing, hints and wrong names, and is nothing without the fault", () => {
    const c = all[0]![1];
    const d = deal(c, "continuity", 3)!;
    const one = { q: { kind: "console" as const, host: "B1" }, seen: "works" };
    const score = (n: number, hints: number, wrong: number, found = true) =>
      scoreOf(c, d, { measured: Array.from({ length: n }, () => one), hints, wrong, minutes: 1, found }).points;
    expect(score(1, 0, 0)).toBe(100);
    expect(score(30, 0, 0)).toBeLessThan(score(12, 0, 0));
    expect(score(1, 1, 0)).toBe(90);
    expect(score(1, 0, 2)).toBe(70);
    expect(score(1, 0, 0, false)).toBe(0);
  });
  it("the reasoning is replayed: each step leaves no more than before, the last leaves the fault", () => {
    const c = all[1]![1];
    const r = reasonOf(c);
    const h = r.singles.find((x) => x.faults[0]?.id.startsWith("open-wire M2.SDA"))!;
    const seen: Observation[] = r.questions.filter(isTold).flatMap((q) => {
      const a = r.shows(h, q);
      return a === null ? [] : [{ q, seen: a }];
    });
    seen.push({ q: { kind: "beep", a: "M2.SDA", b: "B1.GP4" }, seen: "open" });
    const steps = replay(c, seen);
    expect(steps).toHaveLength(seen.length);
    expect(steps.at(-1)!.after).toBeLessThan(steps[0]!.before / 10);
    expect(steps.some((s) => s.fell.length > 0)).toBe(true);
  });
});
