import { describe, expect, it } from "vitest";
import { bestPlans, broken, clashingCore, extras, feasible, solve, solveSlowly, subProblem } from ".";
import { emptyProblem, type Choice, type Problem } from "../problem";
import { bruteForce, randomProblem, seeded, type RandomSize } from "../random";
import { cheapestMatching, Matching, NEVER } from "./matching";

/** What a seed brings besides buses and sides: all combinations come up. */
const kinds = (seed: number): Partial<RandomSize> => ({
  timers: seed % 2 === 0,
  orders: seed % 3 === 0,
  remaps: seed % 5 < 2,
  channels: seed % 4 === 1,
});
const MOST_COMBINATIONS = 3e6;
const small = (seed: number): Problem | null => {
  const p = randomProblem(seed, { pins: 7, parts: 3, ...kinds(seed) });
  return p.needs.reduce((s, n) => s * n.choices.length, 1) > MOST_COMBINATIONS ? null : p;
};

const pins = (n: number) => Array.from({ length: n }, (_, i) => ({ ref: "B1", label: `P${i}`, header: "L" }));
const choice = (pin: number, cost = 0, more: Partial<Choice> = {}): Choice => ({
  pin,
  bus: null,
  cost,
  prices: [],
  uses: [],
  ...more,
});
const need = (
  id: string,
  choices: Choice[],
  more: Partial<Problem["needs"][number]> = {},
): Problem["needs"][number] => ({
  id,
  ref: id.split(".")[0]!,
  need: { kind: "digital-out" },
  share: null,
  group: null,
  locked: null,
  present: null,
  choices,
  ...more,
});
const problem = (n: number, more: Partial<Problem>): Problem => ({ ...emptyProblem("B1", pins(n)), ...more });

describe("against brute force", () => {
  it("finds the optimum with timers, rows of lines, pin sets and channels, and breaks no rule", () => {
    let feasibles = 0;
    let tried = 0;
    for (let seed = 1; seed <= 260; seed++) {
      const p = small(seed);
      if (!p) continue;
      tried++;
      const mine = solve(p);
      const truth = bruteForce(p);
      expect(mine?.cost ?? null, `seed ${seed}`).toBe(truth);
      expect(feasible(p), `seed ${seed}`).toBe(truth !== null);
      if (!mine) continue;
      feasibles++;
      expect(broken(p, mine.choice), `seed ${seed}`).toEqual([]);
      const { side, order } = extras(p, mine.choice);
      const own = mine.choice.reduce((s, k, n) => s + p.needs[n]!.choices[k]!.cost, 0);
      expect(own + side + order).toBe(mine.cost);
    }
    expect(tried).toBeGreaterThan(180);
    expect(feasibles).toBeGreaterThan(80);
    expect(feasibles).toBeLessThan(tried);
  });
  it("names a core that is minimal: without any one of it the rest fits", () => {
    let cores = 0;
    for (let seed = 300; seed <= 420; seed++) {
      const p = randomProblem(seed, { pins: 6, parts: 3, ...kinds(seed) });
      const core = clashingCore(p);
      if (feasible(p)) {
        expect(core).toEqual([]);
        continue;
      }
      cores++;
      const ids = core.map((n) => n.id);
      expect(feasible(subProblem(p, new Set(ids))), `seed ${seed}`).toBe(false);
      for (const id of ids)
        expect(feasible(subProblem(p, new Set(ids.filter((x) => x !== id)))), `seed ${seed} ${id}`).toBe(true);
    }
    expect(cores).toBeGreaterThan(20);
  });
});

describe("shared things", () => {
  const timed = (id: string, mode: string, at: [pin: number, slot: string | null][], resource = 0) =>
    need(
      id,
      at.map(([pin, slot], i) => choice(pin, i, { uses: [{ resource, mode, slot }] })),
    );
  const timer = (modes = 1, most = Infinity) => [{ id: "t", says: "timer t", modes, most }];
  it("a timer runs at one rate: a servo and a note can't both have it", () => {
    const p = problem(4, {
      resources: timer(),
      needs: [timed("M1.SIG", "at 50 Hz", [[0, null]]), timed("M2.IO", "at the notes of M2", [[1, null]])],
    });
    expect(solve(p)).toBeNull();
    expect(clashingCore(p).map((n) => n.id)).toEqual(["M1.SIG", "M2.IO"]);
    expect(solve({ ...p, resources: timer(2) })?.cost).toBe(0);
  });
  it("needs at one rate share it, each on a channel of its own", () => {
    const at: [number, string][] = [
      [0, "A"],
      [1, "A"],
      [2, "B"],
    ];
    const p = problem(3, { resources: timer(), needs: [timed("M1.S", "at 50 Hz", at), timed("M2.S", "at 50 Hz", at)] });
    const s = solve(p)!;
    const slots = s.choice.map((k, n) => p.needs[n]!.choices[k]!.uses[0]!.slot);
    expect(new Set(slots).size).toBe(2);
    const third = { ...p, needs: [...p.needs, timed("M3.S", "at 50 Hz", at)] };
    expect(solve(third)).toBeNull();
  });
  it("a pool of outputs serves so many", () => {
    const at: [number, null][] = [
      [0, null],
      [1, null],
      [2, null],
    ];
    const three = [1, 2, 3].map((i) => timed(`M${i}.S`, "at its usual rate", at));
    expect(solve(problem(3, { resources: timer(1, 3), needs: three }))).not.toBeNull();
    expect(solve(problem(3, { resources: timer(1, 2), needs: three }))).toBeNull();
  });
  it("tones on fewer timers than tones are refused at once, however many pins there are", () => {
    const needs = Array.from({ length: 9 }, (_, i) =>
      need(
        `LS${i + 1}.1`,
        Array.from({ length: 16 }, (_, pin) =>
          choice(pin, 0, { uses: [{ resource: pin >> 1, mode: `notes of LS${i + 1}`, slot: pin & 1 ? "b" : "a" }] }),
        ),
      ),
    );
    const resources = Array.from({ length: 8 }, (_, i) => ({
      id: `s${i}`,
      says: `slice ${i}`,
      modes: 1,
      most: Infinity,
    }));
    const start = performance.now();
    expect(feasible(problem(16, { resources, needs }))).toBe(false);
    expect(performance.now() - start).toBeLessThan(2000);
    expect(solve(problem(16, { resources, needs: needs.slice(1) }))).not.toBeNull();
  });
});

describe("rows of lines", () => {
  const lines = (n: number, free: number[]) =>
    Array.from({ length: n }, (_, i) =>
      need(
        `M1.D${i}`,
        free.map((pin) => choice(pin)),
      ),
    );
  const rows = (count: number, n: number) => {
    const up = Array.from({ length: n - count + 1 }, (_, s) => Array.from({ length: count }, (_, k) => s + k));
    return [...up, ...up.map((a) => [...a].reverse())];
  };
  it("stand side by side where there is room", () => {
    const p = problem(8, {
      orderCost: 3,
      needs: [need("D1.A", [choice(0)]), ...lines(4, [0, 1, 2, 3, 4, 5, 6, 7])],
      orders: [{ ref: "M1", says: "data lines", needs: [1, 2, 3, 4], anchors: rows(4, 8) }],
    });
    const s = solve(p)!;
    expect(s.orderCost).toBe(0);
    const at = s.choice.slice(1).map((k, i) => p.needs[i + 1]!.choices[k]!.pin);
    expect(at.map((x, i) => x - at[0]! - i * (at[1]! - at[0]!))).toEqual([0, 0, 0, 0]);
  });
  it("pay for each line that is out of its place", () => {
    // Pins 0, 1, 3, 4: two of a row of four can stand in it, or three with the hole counted: 0 1 _ 3.
    const p = problem(5, {
      orderCost: 3,
      needs: lines(4, [0, 1, 3, 4]),
      orders: [{ ref: "M1", says: "data lines", needs: [0, 1, 2, 3], anchors: rows(4, 5) }],
    });
    expect(solve(p)!.cost).toBe(3);
    expect(bruteForce(p)).toBe(3);
  });
});

describe("multiplexed buses", () => {
  const bus = (ref: string, group: number, on: string[]) =>
    need(
      `${ref}.SDA`,
      on.map((b, i) => choice(i, 0, { bus: b })),
      { need: { kind: "i2c", role: "sda" }, share: "i2c.sda", group },
    );
  it("two alike parts on channels; one of them on the main bus would be seen through", () => {
    const group = (id: number, ref: string) => ({ id, ref, kind: "i2c", addresses: ["0x29"] });
    const p = problem(3, {
      needs: [bus("U1", 0, ["i2c0"]), bus("M1", 1, ["i2c0", "U1:0", "U1:1"]), bus("M2", 2, ["i2c0", "U1:0", "U1:1"])],
      groups: [group(0, "U1"), group(1, "M1"), group(2, "M2")],
      clashes: [[1, 2, "same address"]],
      under: { "U1:0": 0, "U1:1": 0 },
    });
    const s = solve(p)!;
    const on = s.choice.map((k, n) => p.needs[n]!.choices[k]!.bus);
    expect(new Set(on.slice(1))).toEqual(new Set(["U1:0", "U1:1"]));
    expect(broken(p, [0, 0, 1])[0]).toContain("on one bus");
  });
});

describe("very many buses", () => {
  it("forty groups on forty ports of their own", () => {
    const n = 40;
    const needs = Array.from({ length: n }, (_, g) =>
      need(`M${g}.TX`, [choice(g, 5, { bus: `uart${g}` }), choice((g + 1) % n, 0, { bus: `uart${(g + 1) % n}` })], {
        group: g,
      }),
    );
    const groups = Array.from({ length: n }, (_, id) => ({ id, ref: `M${id}`, kind: "uart", addresses: [] }));
    const clashes = groups.flatMap((a) =>
      groups.filter((b) => b.id > a.id).map((b): [number, number, string] => [a.id, b.id, "one device"]),
    );
    expect(solve(problem(n, { needs, groups, clashes }))?.cost).toBe(0);
  });
});

describe("the best plans", () => {
  it("are the cheapest that differ, as trying everything says", () => {
    let compared = 0;
    for (let seed = 1; seed <= 60; seed++) {
      const p = randomProblem(seed, { pins: 5, parts: 2, ...kinds(seed) });
      if (p.needs.reduce((s, n) => s * n.choices.length, 1) > 4e4) continue;
      const best = bestPlans(p, 4, (ref) => ref);
      // By pins: two ways to use one pin are one plan.
      const all = new Map<string, number>();
      const go = (pick: number[]) => {
        if (pick.length < p.needs.length) return p.needs[pick.length]!.choices.forEach((_, k) => go([...pick, k]));
        if (broken(p, pick).length) return;
        const { side, order } = extras(p, pick);
        const cost = pick.reduce((s, k, n) => s + p.needs[n]!.choices[k]!.cost, side + order);
        const key = pick.map((k, n) => p.needs[n]!.choices[k]!.pin).join();
        all.set(key, Math.min(all.get(key) ?? Infinity, cost));
      };
      go([]);
      const truth = [...all.values()].sort((a, b) => a - b).slice(0, 4);
      expect(
        best.map((s) => s.cost),
        `seed ${seed}`,
      ).toEqual(truth);
      if (truth.length > 1) compared++;
    }
    expect(compared).toBeGreaterThan(15);
  });
  it("alike parts that swap their pins are no other plan", () => {
    const two = problem(3, { needs: [need("D1.A", [choice(0), choice(1)]), need("D2.A", [choice(0), choice(1)])] });
    expect(bestPlans(two, 5, () => "led")).toHaveLength(1);
    expect(bestPlans(two, 5, (ref) => ref)).toHaveLength(2);
  });
});

describe("how it goes about it", () => {
  it("is deterministic", () => {
    for (let seed = 1; seed <= 20; seed++) {
      const p = randomProblem(seed, { pins: 12, parts: 5, ...kinds(seed) });
      expect(solve(p)).toEqual(solve(structuredClone(p)));
    }
  });
  it("keeps the present plan when nothing is cheaper, though other pins come first", () => {
    const p = problem(4, { needs: [need("D1.A", [choice(0), choice(3)], { present: "B1.P3" })] });
    // Pin 0 is as cheap and printed earlier: the tie goes to it, unless moving has its price.
    const moved = { ...p, needs: [need("D1.A", [choice(0, 14), choice(3)], { present: "B1.P3" })] };
    expect(moved.needs[0]!.choices[solve(moved)!.choice[0]!]!.pin).toBe(3);
  });
  it("can be stopped: the best so far comes back, marked as not proven", () => {
    const p = randomProblem(1012, { pins: 26, parts: 8, timers: true });
    const run = solveSlowly(p);
    let r = run.next();
    let pauses = 0;
    while (!r.done && pauses < 2) {
      pauses++;
      r = run.next(pauses === 2);
    }
    expect(r.done).toBe(true);
    if (r.value === "stopped" || r.value === null || typeof r.value === "number")
      return expect(r.value).toBe("stopped");
    expect(r.value.proven).toBe(false);
    expect(broken(p, r.value.choice)).toEqual([]);
    return expect(r.value.cost).toBeGreaterThanOrEqual(solve(p)!.cost);
  });
});

describe("the matching", () => {
  it("its reduced costs bound what a forced pairing costs", () => {
    const rnd = (s: number) => ((s * 9301 + 49297) % 233280) / 233280;
    for (let seed = 1; seed <= 40; seed++) {
      const rows = Array.from({ length: 4 }, (_, r) =>
        Float64Array.from({ length: 6 }, (_, c) =>
          rnd(seed * 31 + r * 7 + c) < 0.2 ? NEVER : Math.floor(rnd(seed + r * 11 + c * 3) * 20),
        ),
      );
      const m = new Matching(6);
      if (!rows.every((r) => m.add(r))) continue;
      const total = m.total();
      for (let r = 0; r < 4; r++)
        for (let c = 0; c < 6; c++) {
          const forced = new Matching(6);
          const only = rows.map((row, i) => (i === r ? Float64Array.from(row, (x, k) => (k === c ? x : NEVER)) : row));
          if (!only.every((row) => forced.add(row))) continue;
          expect(forced.total() + 1e-9).toBeGreaterThanOrEqual(total + m.reduced(r, c));
        }
    }
  });

  it("a row that changes its prices ends where a fresh matching would: same total, tight and valid potentials", () => {
    for (let seed = 1; seed <= 60; seed++) {
      const roll = seeded(seed);
      const [rows, columns] = [5 + Math.floor(roll() * 6), 12];
      const table = () => Float64Array.from({ length: columns }, () => (roll() < 0.3 ? NEVER : Math.floor(roll() * 8)));
      const prices = Array.from({ length: rows }, table);
      const m = new Matching(columns);
      if (!prices.every((r) => m.add(r))) continue;
      for (let turn = 0; turn < 12; turn++) {
        const before = m.standing();
        const at = Math.floor(roll() * rows);
        const old = prices[at]!;
        prices[at] = table();
        const plain = cheapestMatching(
          prices.map((r) => [...r]),
          columns,
        );
        expect(m.change(at, prices[at])).toBe(plain !== null);
        if (!plain) {
          prices[at] = old;
          m.restore(before);
        }
        if (plain) expect(m.total()).toBe(plain.total);
        const out = Math.floor(roll() * rows);
        m.drop(out);
        expect(m.add(prices[out]!)).toBe(true);
        [prices[out], prices[rows - 1]] = [prices[rows - 1]!, prices[out]!];
        const whole = cheapestMatching(
          prices.map((r) => [...r]),
          columns,
        );
        expect(m.total()).toBe(whole!.total);
        const columnsOf = m.columnsOfRows();
        expect(new Set(columnsOf).size).toBe(rows);
        for (let r = 0; r < rows; r++)
          for (let c = 0; c < columns; c++) {
            expect(m.reduced(r, c)).toBeGreaterThanOrEqual(-1e-9);
            if (columnsOf[r] === c) expect(m.reduced(r, c)).toBeCloseTo(0, 9);
          }
      }
    }
  });
});
