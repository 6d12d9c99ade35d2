import { describe, expect, it } from "vitest";
import { assign } from "..";
import { catalogue, make } from "../../../testing";
import { emptyProblem, type Problem, type ProblemNeed } from "../problem";
import { clashingCore, countingClash, fits, solve } from ".";

const need = (id: string, pins: number[]): ProblemNeed => ({
  id,
  ref: id.split(".")[0]!,
  need: { kind: "digital-out" },
  share: null,
  group: null,
  locked: null,
  present: null,
  choices: pins.map((pin) => ({ pin, bus: null, cost: 0, prices: [], uses: [] })),
});
const problem = (pins: number, needs: ProblemNeed[]): Problem => ({
  ...emptyProblem(
    "B1",
    Array.from({ length: pins }, (_, i) => ({ ref: "B1", label: `D${i}`, header: "L" })),
  ),
  needs,
});

describe("counting before searching", () => {
  it("names exactly those who are one too many, not who has other ways", () => {
    const p = problem(5, [
      need("X1.A", [0, 1]),
      need("X2.A", [0, 1]),
      need("X3.A", [2, 3, 4]),
      need("X4.A", [0, 1]),
      need("X5.A", [1, 2]),
    ]);
    expect(countingClash(p)!.map((n) => n.id)).toEqual(["X1.A", "X2.A", "X4.A"]);
    expect(clashingCore(p).map((n) => n.id)).toEqual(["X1.A", "X2.A", "X4.A"]);
    expect(fits(p)).toBe("no");
    expect(solve(p)).toBeNull();
  });
  it("is silent where everybody finds a pin by moving over", () => {
    const p = problem(3, [need("X1.A", [0, 1]), need("X2.A", [0]), need("X3.A", [1, 2])]);
    expect(countingClash(p)).toBeNull();
    expect(solve(p)!.choice).toHaveLength(3);
  });
  it("a need that nothing serves is the whole answer", () => {
    expect(countingClash(problem(2, [need("X1.A", [0]), need("X2.A", [])]))!.map((n) => n.id)).toEqual(["X2.A"]);
  });
  it("groups that can't share a bus are counted against the buses, also by the size of their own choice", () => {
    const on = (id: string, group: number, buses: string[]): ProblemNeed => ({
      ...need(id, []),
      group,
      share: "sda",
      choices: buses.map((bus) => ({ pin: Number(bus.at(-1)) * 2, bus, cost: 0, prices: [], uses: [] })),
    });
    const groups = [0, 1, 2, 3].map((id) => ({ id, ref: `X${id}`, kind: "i2c", addresses: ["0x40"] }));
    const make = (buses: string[][], clashes: [number, number, string][]): Problem => ({
      ...problem(
        10,
        buses.map((b, g) => on(`X${g}.SDA`, g, b)),
      ),
      groups: groups.slice(0, buses.length),
      clashes,
    });
    const all = (n: number) =>
      Array.from({ length: n }, (_, a) =>
        Array.from({ length: a }, (_, b): [number, number, string] => [a, b, ""]),
      ).flat();
    const [a, b, c] = ["i2c0", "i2c1", "i2c2"];
    expect(
      countingClash(
        make(
          [
            [a, b],
            [a, b],
            [a, b],
          ],
          all(3),
        ),
      )!.map((n) => n.id),
    ).toEqual(["X0.SDA", "X1.SDA", "X2.SDA"]);
    // The third has a bus of its own: nobody is left over.
    expect(
      countingClash(
        make(
          [
            [a, b],
            [a, b],
            [b, c],
          ],
          all(3),
        ),
      ),
    ).toBeNull();
    // Two on one bus are enough, and the third has nothing to do with it.
    expect(countingClash(make([[c], [a, b, c], [c]], all(3)))!.map((n) => n.id)).toEqual(["X0.SDA", "X2.SDA"]);
    // They get on with each other.
    expect(
      countingClash(
        make(
          [
            [a, b],
            [a, b],
            [a, b],
          ],
          [[0, 1, ""]],
        ),
      ),
    ).toBeNull();
    const clash = make([[a], [a, b], [a, b], [b]], all(4));
    expect(clashingCore(clash).map((n) => n.id)).toHaveLength(3);
    expect(fits(clash)).toBe("no");
  });
  it("answers hopeless lists at once and by name: 64 lights on a compact board", () => {
    const parts = Array.from({ length: 64 }, (_, i) => ({ ref: `D${i + 1}`, part: "discrete/led-red" }));
    const a = assign(make([{ ref: "B1", part: "board/atmega328p-compact" }, ...parts]), catalogue);
    expect(a.status).toBe("infeasible");
    expect(a.core.length).toBeGreaterThan(10);
    expect(a.clash).toContain("digital output");
  });
});
