import { beforeAll, describe, expect, it } from "vitest";
import loader from "highs";
import { assign, solve, writeLp } from "../src/core/assign";
import { randomProblem } from "../src/core/assign/random";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";

type Highs = Awaited<ReturnType<typeof loader>>;
let highs: Highs;
beforeAll(async () => {
  highs = await loader();
});

/** The independent solver's optimum of an LP text, or null when it says that there is none. */
function independent(lp: string): number | null {
  const r = highs.solve(lp, { output_flag: false, mip_rel_gap: 0, mip_abs_gap: 0 } as object);
  if (r.Status === "Infeasible") return null;
  expect(r.Status).toBe("Optimal");
  return Math.round(r.ObjectiveValue) + 0; // + 0: never minus zero
}

describe("an independent solver agrees with the optimum", () => {
  it("on 120 random instances of different sizes", () => {
    let feasible = 0;
    for (let seed = 1; seed <= 120; seed++) {
      const p = randomProblem(seed, { pins: 8 + (seed % 25), parts: 2 + (seed % 9) });
      const mine = solve(p);
      expect(mine?.cost ?? null, `seed ${seed}`).toBe(independent(writeLp(p)));
      if (mine) feasible++;
    }
    expect(feasible).toBeGreaterThan(50);
  });

  it("on real parts lists, fresh and when a part joins a finished plan", () => {
    const ids = ["bme280", "ssd1306-i2c", "hc-sr04", "ws2812b-strip"].map((x) => `module/${x}`);
    ids.push("discrete/led-red", "discrete/button");
    for (const board of [BOARD3, BOARD5])
      for (let n = 1; n <= 8; n++) {
        const parts = Array.from({ length: n }, (_, i) => ({ ref: `X${i + 1}`, part: ids[(i * 5 + n) % ids.length]! }));
        const a = assign(make([board, USB, ...parts]), catalogue);
        expect(a.status === "optimal" ? a.cost : null).toBe(independent(writeLp(a.problems[0]!)));
        if (a.status !== "optimal") continue;
        const more = make([...a.project.parts, { ref: "X9", part: "discrete/led-red" }], [], {
          links: a.project.links,
        });
        const b = assign(more, catalogue);
        expect(b.status === "optimal" ? b.cost : null).toBe(independent(writeLp(b.problems[0]!)));
      }
  });
});
