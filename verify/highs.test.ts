import { beforeAll, describe, expect, it } from "vitest";
import loader from "highs";
import { assign, problemsOf, solve, writeLp } from "../src/core/plan/assign";
import { denseList } from "../src/core/plan/assign/dense";
import { alikeProblem, randomProblem } from "../src/core/plan/assign/random";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";

type Highs = Awaited<ReturnType<typeof loader>>;
let highs: Highs;
beforeAll(async () => {
  highs = await loader();
});

const ALL = process.env.ALL === "1";

/** The independent solver's optimum of an LP text, or null when it says that there is none. */
function independent(lp: string): number | null {
  const r = highs.solve(lp, { output_flag: false, mip_rel_gap: 0, mip_abs_gap: 0 } as object);
  if (r.Status === "Infeasible") return null;
  expect(r.Status).toBe("Optimal");
  return Math.round(r.ObjectiveValue) + 0; // + 0: never minus zero
}

describe("an independent solver agrees with the optimum", () => {
  it("on 320 random instances: plain, with timers, rows of lines, pin sets, channels, and all of it", () => {
    let feasible = 0;
    for (let seed = 1; seed <= 320; seed++) {
      const p = randomProblem(seed, {
        pins: 8 + (seed % 11),
        parts: 2 + (seed % 6),
        timers: seed % 2 === 0,
        orders: seed % 3 === 0,
        remaps: seed % 5 < 2,
        channels: seed % 4 === 1,
      });
      const mine = solve(p);
      expect(mine?.cost ?? null, `seed ${seed}`).toBe(independent(writeLp(p)));
      if (mine) feasible++;
    }
    expect(feasible).toBeGreaterThan(150);
    expect(feasible).toBeLessThan(320);
  });

  it("where much is alike: copies of parts, channels, prices by bus only", () => {
    const count = ALL ? 600 : 60;
    let none = 0;
    for (let seed = 1; seed <= count; seed++) {
      const p = alikeProblem(seed, { pins: 8 + (seed % 5) * 2, parts: 3 + (seed % 5) });
      const mine = solve(p);
      if (!mine) none++;
      expect(mine?.cost ?? null, `seed ${seed}`).toBe(independent(writeLp(p)));
    }
    expect(none).toBeGreaterThan(count / 10);
    expect(none).toBeLessThan(count / 2);
  });

  it("on dense lists of real parts, on every kind of board", () => {
    for (let seed = 1; seed <= (ALL ? 200 : 16); seed++) {
      const list = denseList(seed, catalogue);
      let p = problemsOf(make(list.parts), catalogue).problems[0]!;
      let mine = solve(p);
      while (!mine && list.shorten()) {
        p = problemsOf(make(list.parts), catalogue).problems[0]!;
        mine = solve(p);
      }
      expect(mine?.cost ?? null, `seed ${seed}`).toBe(independent(writeLp(p)));
    }
  });

  it("on larger boards", () => {
    for (let seed = 900; seed < 912; seed++) {
      const p = randomProblem(seed, { pins: 40, parts: 12 });
      expect(solve(p)?.cost ?? null, `seed ${seed}`).toBe(independent(writeLp(p)));
    }
  });

  it("on lists with servos, notes, extenders, switches, rows of lines and remapped ports", () => {
    const lists: [board: string, parts: string[]][] = [
      [
        "board/atmega328p-long",
        ["module/servo-small", "module/servo-small", "discrete/speaker", "module/mosfet-switch", "module/tb6612"],
      ],
      [
        "board/rp2040-forty",
        ["module/servo-small", "discrete/speaker", "module/buzzer-passive", "module/lcd1602-parallel"],
      ],
      [
        "board/atmega328p-compact",
        ["module/mcp23017", "module/keypad-4x4", "module/encoder", "module/lcd1602-parallel", "discrete/led-red"],
      ],
      [
        "board/stm32f103-forty",
        ["module/gps-neo6m", "module/bme280", "module/max31855", "module/sn65hvd230", "module/hc-sr04"],
      ],
      ["board/esp32-thirtyeight", ["module/tca9548a", "module/vl53l0x", "module/vl53l0x", "module/ssd1306-i2c"]],
      [
        "board/atmega2560-long",
        ["module/vfd-20x2-parallel", "module/keypad-4x4", "module/cd4067", "discrete/potentiometer", "module/joystick"],
      ],
      ["board/samd21-compact", ["module/encoder", "module/pir", "module/hc-sr04", "module/servo-small"]],
    ];
    for (const [board, ids] of lists) {
      const a = assign(
        make([{ ref: "B1", part: board }, USB, ...ids.map((part, i) => ({ ref: `X${i + 1}`, part }))]),
        catalogue,
      );
      expect(a.status === "optimal" ? a.cost : null, board).toBe(independent(writeLp(a.problems[0]!)));
    }
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
