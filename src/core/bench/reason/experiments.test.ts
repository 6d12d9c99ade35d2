import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { catalogue } from "../../testing";
import { BENCHES } from "./cases";
import { experimentsOf } from "./experiments";
import { isTold, reasonOf, type Hypothesis, type Observation, type Reason } from ".";

/** What bring-up and eyes show of a build with a fault. */
const told = (r: Reason, h: Hypothesis): Observation[] =>
  r.questions.filter(isTold).flatMap((q) => {
    const seen = r.shows(h, q);
    return seen === null ? [] : [{ q, seen }];
  });

const names = ["rain barrel", "moss terrarium", "serial and pulses", "two parts on SPI with selects"];

describe("experiments without a meter", () => {
  it.each(names)("%s: each splits what is possible, sums to one, and keeps every explanation", (name) => {
    const r = reasonOf(circuitOf(BENCHES[name]!(), catalogue));
    let made = 0;
    for (const [i, h] of r.singles.entries()) {
      if (!h.faults.length || (!process.env.ALL && i % 9)) continue;
      const seen = told(r, h);
      if (!r.odd(seen).length) continue;
      const j = r.judge(seen, { wrong: true });
      const list = experimentsOf(r, j);
      if (j.danger > 0.05) expect(list).toEqual([]);
      // The likeliest forty; the others have next to no share.
      const told40 = j.suspects.slice(0, 40);
      const all = told40.map((g) => g.faults.map((f) => f.id).join(" + ")).sort();
      const sum = told40.reduce((s, g) => s + g.share, 0);
      const H = told40.reduce((s, g) => s - (g.share / sum) * Math.log2(g.share / sum), 0);
      for (const e of list) {
        made++;
        expect(e.outcomes.length).toBeGreaterThan(1);
        expect(e.outcomes.reduce((s, o) => s + o.share, 0)).toBeCloseTo(1, 9);
        expect(e.bits).toBeLessThanOrEqual(H + 1e-9);
        // Worked out anew from the shares that are told.
        expect(e.bits).toBeCloseTo(
          e.outcomes.reduce((s, o) => s - o.share * Math.log2(o.share), 0),
          9,
        );
        expect(e.outcomes.flatMap((o) => o.left).sort()).toEqual(all);
        expect(e.does).toMatch(/\.$/);
      }
      const worth = list.map((e) => e.bits / e.minutes);
      expect(worth).toEqual([...worth].sort((a, b) => b - a));
    }
    expect(made).toBeGreaterThan(5);
  });

  it("pulling a part that holds the bus low is told from a fault of the bus", () => {
    const r = reasonOf(circuitOf(BENCHES["moss terrarium"]!(), catalogue));
    // Neighbouring pins of the display touch: data to clock or to ground.
    const h = r.singles.find(
      (x) => x.faults[0]?.kind === "bridged" && x.faults[0].at.every((e) => /^M2\..*(SDA|SCL)/.test(e)),
    )!;
    expect(h.faults[0]!.says).toContain("M2");
    const j = r.judge(told(r, h), { wrong: true });
    const pull = experimentsOf(r, j, 20).find((e) => e.id === "pull M2")!;
    const mine = pull.outcomes.find((o) => o.left.includes(h.faults[0]!.id))!;
    expect(mine.shows).toBe("everything else works");
    expect(pull.outcomes.some((o) => o !== mine && /do(es)? not work/.test(o.shows))).toBe(true);
  });

  it("trying what mends the most likely one tells it from all others", () => {
    const r = reasonOf(circuitOf(BENCHES["rain barrel"]!(), catalogue));
    const h = r.singles.find(
      (x) => x.faults[0]?.kind === "swapped" && x.faults[0].at.every((e) => e.startsWith("M1.")),
    )!;
    const j = r.judge(told(r, h), { wrong: true });
    const tries = experimentsOf(r, j, 20).filter((e) => e.id.startsWith("try "));
    expect(tries.length).toBeGreaterThan(0);
    for (const t of tries) {
      const works = t.outcomes.find((o) => o.shows === "everything works")!;
      expect(works.left).toContain(t.id.slice(4));
    }
  });
});
