import { afterEach, describe, expect, it } from "vitest";
import { broken, helpWith, problemsOf, readLp, solve, solveSlowly, writeLp, type Prover } from "../core/plan/assign";
import { randomProblem } from "../core/plan/assign/random";
import { catalogue, make } from "../core/testing";
import { prove, threadProver } from ".";

const ALL = { timers: true, orders: true, remaps: true, channels: true };
/** Everything at once on few pins: our own search has a plan at once, and takes some 5 seconds for the proof. */
const hard = () => randomProblem(448, { pins: 30, parts: 8, ...ALL });
/** The same, and not proven within 8 seconds. */
const harder = () => randomProblem(9, { pins: 26, parts: 9, ...ALL });

const problemOf = (board: string, parts: string[]) =>
  problemsOf(
    make([
      { ref: "B1", part: board },
      { ref: "S1", part: "supply/usb-charger" },
      ...parts.map((part, i) => ({ ref: `M${i + 1}`, part })),
    ]),
    catalogue,
  ).problems[0]!;
const small = () => problemOf("board/rp2040-forty", ["module/bme280", "module/sd-3v3", "discrete/button"]);

function ended(p: ReturnType<typeof hard>, most_ms: number) {
  const run = solveSlowly(p, most_ms);
  for (;;) {
    const r = run.next();
    if (r.done) return r.value;
  }
}

afterEach(() => helpWith(null));

describe("a second solver beside ours", () => {
  it("proves what ours alone does not prove in that time, and no dearer plan", () => {
    const alone = ended(hard(), 700);
    expect(alone).toMatchObject({ proven: false });
    helpWith(threadProver);
    const both = ended(hard(), 30_000);
    expect(both).toMatchObject({ proven: true });
    if (!both || both === "stopped" || !alone || alone === "stopped") throw new Error("no plan");
    expect(both.cost).toBeLessThanOrEqual(alone.cost);
    expect(broken(hard(), both.choice)).toEqual([]);
  }, 70_000);
  it("is not believed where its plan breaks a rule, is no plan or is dearer than ours", () => {
    const dropped: string[] = [];
    const liar =
      (what: string, choice: number[] | "no plan"): Prover =>
      () => ({ look: () => (choice === "no plan" ? choice : { choice }), drop: () => void dropped.push(what) });
    const p = harder();
    for (const [what, lie] of [
      ["nonsense", []],
      ["first choices", p.needs.map(() => 0)],
      ["choices that are not there", p.needs.map(() => 9999)],
      ["no plan", "no plan"],
    ] as const) {
      helpWith(liar(what, lie === "no plan" ? lie : [...lie]));
      const s = ended(p, 700);
      expect(s, what).toMatchObject({ proven: false });
      if (s && s !== "stopped") expect(broken(p, s.choice)).toEqual([]);
    }
    expect(dropped).toHaveLength(4);
  });
  it("reads the model back: the same price as ours, on small lists", async () => {
    const p = small();
    const a = await prove(writeLp(p));
    const choice = a.says === "plan" ? readLp(p, a.ones) : null;
    expect(choice).not.toBeNull();
    const own = choice!.reduce((sum, c, i) => sum + p.needs[i]!.choices[c]!.cost, 0);
    expect(own).toBeLessThanOrEqual(solve(p)!.cost);
    expect(broken(p, choice!)).toEqual([]);
    expect(readLp(p, [])).toBeNull();
  });
  it("says that there is no plan when there is none", async () => {
    const p = problemOf(
      "board/esp8266-mini",
      Array.from({ length: 14 }, () => "discrete/button"),
    );
    expect(await prove(writeLp(p))).toEqual({ says: "no plan" });
  });
});
