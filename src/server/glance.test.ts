import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { BOARD3, CABLE, make, planned, USB } from "../core/testing";

const dir = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-glance-"));
let glance: typeof import("./glance").glance;
let projects: typeof import("./projects");
beforeAll(async () => {
  process.env.LATTICE_DATA = dir;
  ({ glance } = await import("./glance"));
  projects = await import("./projects");
});
afterAll(async () => {
  (await import("./heavy")).heavy().end();
  fs.rmSync(dir, { recursive: true, force: true });
});

const made = (document: unknown) => {
  const r = projects.create({ document });
  if (r.status !== 201) throw new Error(JSON.stringify(r));
  return r.body as { id: string; version: number };
};

describe("a project at a glance", () => {
  it("tells where work goes on, from parts to the bench", async () => {
    const at = async (document: unknown) => {
      const r = await glance(made(document).id);
      return r.status === 200 ? (r.body as { at: string }).at : r.status;
    };
    expect(await at(make([]))).toBe("parts");
    expect(await at(make([{ ref: "D1", part: "discrete/led-red" }]))).toBe("board");
    expect(await at(make([BOARD3, USB, { ref: "D1", part: "discrete/led-red" }], [CABLE]))).toBe("pins");
    expect(await at(planned([BOARD3, USB, { ref: "D1", part: "discrete/led-red" }]))).toBe("wiring");
  });
  it("counts only ticks of wires that are there, and follows a new version", async () => {
    const p = planned([BOARD3, USB, { ref: "D1", part: "discrete/led-red" }]);
    const { id, version } = made({
      ...p,
      bench: [{ list: "wires", id: "gone", done: true, at: "2026-01-01T00:00:00.000Z" }],
    });
    const first = await glance(id);
    expect(first).toMatchObject({ status: 200, body: { wired: [0, expect.any(Number)], parts: 3 } });
    expect(await glance(id)).toEqual(first);
    projects.save(id, {
      base: version,
      document: { ...p, parts: p.parts.filter((x) => x.ref !== "D1"), links: [] },
      summary: "less",
    });
    expect(await glance(id)).toMatchObject({ status: 200, body: { parts: 2, version: version + 1 } });
  });
  it("says so when there is no such project", async () => {
    expect((await glance("nowhere")).status).toBe(404);
  });
});
