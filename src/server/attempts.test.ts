import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";

let dir = "";
let api: typeof import("./attempts");
let projects: typeof import("./projects");
beforeAll(async () => {
  dir = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-attempts-"));
  process.env.LATTICE_DATA = dir;
  projects = await import("./projects");
  api = await import("./attempts");
});
afterAll(() => fs.rmSync(dir, { recursive: true, force: true }));

const ATTEMPT = {
  learner: "Robin",
  level: "continuity",
  seed: 10,
  plan: "BCDFGHJK",
  points: 88,
  measured: 4,
  best: 3,
  hints: 0,
  wrong: 0,
  minutes: 2.5,
  found: true,
};

describe("attempts of learners", () => {
  it("are kept by project, newest first, and go with it", () => {
    const made = projects.create({ title: "Practice" });
    if (made.status !== 201) throw new Error("not made");
    const { id } = made.body;
    expect(api.addAttempt(id, ATTEMPT).status).toBe(201);
    expect(api.addAttempt(id, { ...ATTEMPT, learner: "Sam", points: 0, found: false }).status).toBe(201);
    const list = api.attempts(id);
    if (list.status !== 200) throw new Error("no list");
    expect(list.body.attempts.map((a) => a.learner).sort()).toEqual(["Robin", "Sam"]);
    expect(list.body.attempts.find((a) => a.learner === "Robin")).toMatchObject({ found: 1, points: 88, minutes: 2.5 });
    expect(api.clearAttempts(id)).toEqual({ status: 200, body: { removed: 2 } });
    expect(api.addAttempt(id, ATTEMPT).status).toBe(201);
    projects.remove(id);
    expect(api.attempts(id).status).toBe(404);
  });
  it("are refused with a sentence when they are none, and nothing is written", () => {
    const made = projects.create({ title: "Hostile" });
    if (made.status !== 201) throw new Error("not made");
    const { id } = made.body;
    for (const bad of [
      null,
      "x",
      {},
      { ...ATTEMPT, points: 101 },
      { ...ATTEMPT, learner: "x".repeat(61) },
      { ...ATTEMPT, plan: "<script>" },
      { ...ATTEMPT, minutes: Infinity },
      { ...ATTEMPT, more: 1 },
    ]) {
      const r = api.addAttempt(id, bad);
      expect(r.status, JSON.stringify(bad)).toBe(400);
    }
    expect(api.attempts(id)).toMatchObject({ status: 200, body: { attempts: [] } });
    expect(api.addAttempt("nothing", ATTEMPT).status).toBe(404);
  });
});
