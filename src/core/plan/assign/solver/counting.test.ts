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
  it("answers hopeless lists at once and by name: 64 lights on a compact board", () => {
    const parts = Array.from({ length: 64 }, (_, i) => ({ ref: `D${i + 1}`, part: "discrete/led-red" }));
    const a = assign(make([{ ref: "B1", part: "board/atmega328p-compact" }, ...parts]), catalogue);
    expect(a.status).toBe("infeasible");
    expect(a.core.length).toBeGreaterThan(10);
    expect(a.clash).toContain("digital output");
  });
});
