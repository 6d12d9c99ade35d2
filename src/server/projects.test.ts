import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { openDatabase } from "../db/database";
import { locked, refusal } from "./guard";
import { admit, closeHolder, holders, unlock } from "./holders";

let dir = "";
let api: typeof import("./projects");
beforeAll(async () => {
  dir = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-db-"));
  process.env.LATTICE_DATA = dir;
  api = await import("./projects");
});
afterAll(() => fs.rmSync(dir, { recursive: true, force: true }));

describe("stored projects", () => {
  it("start with the demos, once", () => {
    expect(
      api
        .list()
        .map((p) => p.title)
        .sort(),
    ).toEqual(["Beehive scale logger", "Moss terrarium keeper", "Rain-barrel gauge"]);
    for (const p of api.list()) api.remove(p.id);
    expect(api.list()).toEqual([]);
  });
  it("save on top of a version, and refuse a stale save without writing", () => {
    const made = api.create({ title: "A" });
    if (made.status !== 201) throw new Error("not made");
    const { id, document } = made.body;
    const doc = document as Record<string, unknown>;
    const first = api.save(id, { base: 1, document: { ...doc, title: "B" }, summary: "title" });
    expect(first).toEqual({ status: 200, body: { version: 2 } });
    const stale = api.save(id, { base: 1, document: { ...doc, title: "C" } });
    expect(stale.status).toBe(409);
    expect(stale.body).toMatchObject({ version: 2, document: { title: "B" } });
    expect(api.get(id)).toMatchObject({ status: 200, body: { version: 2, document: { title: "B" } } });
    const kept = api.revisions(id);
    expect(kept.status === 200 && kept.body.map((r) => [r.version, r.summary])).toEqual([
      [2, "title"],
      [1, "new project"],
    ]);
    expect(api.revision(id, 1)).toMatchObject({ status: 200, body: { document: { title: "A" } } });
    expect(api.revision(id, 9).status).toBe(404);
  });
  it("a tick is a mark on a version, no version of its own; a wire is one", () => {
    const made = api.create({ title: "Ticks" });
    if (made.status !== 201) throw new Error("not made");
    const { id, document } = made.body;
    let doc = document as Record<string, unknown>;
    const save = (base: number, more: object, summary: string) => {
      doc = { ...doc, ...more };
      return api.save(id, { base, document: doc, summary });
    };
    const tick = (n: number) => ({
      bench: Array.from({ length: n }, (_, i) => ({ at: "2026-01-01", list: "wires", id: `w${i}`, done: true })),
    });
    expect(save(1, { title: "Named" }, "title").status).toBe(200);
    expect(save(2, tick(1), "tick").body).toEqual({ version: 3 });
    expect(save(3, tick(2), "tick").body).toEqual({ version: 4 });
    const list = api.revisions(id);
    expect(list.status === 200 && list.body.map((r) => [r.version, r.summary])).toEqual([
      [4, "title"],
      [1, "new project"],
    ]);
    expect(api.revision(id, 4)).toMatchObject({ status: 200, body: { document: { title: "Named", bench: [{}, {}] } } });
    expect(save(4, { title: "Again" }, "title 2").status).toBe(200);
    const after = api.revisions(id);
    expect(after.status === 200 && after.body.map((r) => r.version)).toEqual([5, 4, 1]);
    // Only the version on which the ticks were made counts as wired; a saved plan is kept as well.
    expect(after.status === 200 && after.body.map((r) => r.kept)).toEqual([null, "wired", null]);
    expect(save(5, { savedPlan: { at: "2026-02-02", name: "first bench", links: [] } }, "save the plan").status).toBe(
      200,
    );
    const plan = api.revisions(id);
    expect(plan.status === 200 && plan.body.map((r) => r.kept)).toEqual(["saved", null, "wired", null]);
    expect(plan.status === 200 && plan.body[0]!.name).toBe("first bench");
  });
  it("refuse documents that are not sound, whole", () => {
    const before = api.list().length;
    expect(
      api.create({ document: { format: "young-lattice-project", version: 1, title: "x", extra: 1 } }),
    ).toMatchObject({
      status: 400,
      body: { problems: [{ path: "extra" }] },
    });
    expect(api.create({ nonsense: true }).status).toBe(400);
    expect(api.save("nothing", { base: 1, document: {}, summary: "" }).status).toBe(400);
    expect(api.list()).toHaveLength(before);
  });
});

describe("the database", () => {
  it("keeps what was acknowledged after the process is gone, and refuses a newer schema", () => {
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-db2-"));
    const db = openDatabase(folder);
    db.prepare("INSERT INTO settings VALUES ('a', 'b')").run();
    // No close: a killed process does not close either.
    const again = openDatabase(folder);
    expect(again.prepare("SELECT value FROM settings WHERE key = 'a'").get()).toEqual({ value: "b" });
    expect(again.pragma("journal_mode", { simple: true })).toBe("wal");
    again.pragma("user_version = 99");
    expect(() => openDatabase(folder)).toThrow("newer version");
    fs.rmSync(folder, { recursive: true });
  });
});

describe("a data folder that changes under the app", () => {
  it("is told when it is gone, no new one is begun in its place, and it is opened again when it is back", () => {
    const made = api.create({ title: "Kept" });
    if (made.status !== 201) throw new Error("not made");
    const away = `${dir}-away`;
    fs.renameSync(dir, away);
    for (let k = 0; k < 2; k++) expect(() => api.create({ title: "Lost" })).toThrow(/is not there any more/);
    expect(fs.existsSync(dir)).toBe(false);
    fs.renameSync(away, dir);
    expect(api.list().map((p) => p.title)).toContain("Kept");
    // A copy that is put in its place is what is shown from then on.
    const copy = path.join(os.tmpdir(), `lattice-copy-${process.pid}`);
    const db = openDatabase(copy);
    db.prepare("INSERT INTO settings (key, value) VALUES ('seeded', '1')").run();
    db.close();
    for (const n of fs.readdirSync(dir)) fs.rmSync(path.join(dir, n));
    fs.copyFileSync(path.join(copy, "young-lattice.sqlite"), path.join(dir, "young-lattice.sqlite"));
    expect(api.list()).toEqual([]);
    fs.rmSync(copy, { recursive: true });
  });
});

describe("guard", () => {
  const h = (o: Record<string, string>) => refusal(new Headers(o));
  it("serves this machine only", () => {
    expect(h({ host: "127.0.0.1:4310" })).toBeNull();
    expect(h({ host: "localhost:4310", origin: "http://localhost:4310", "sec-fetch-site": "same-origin" })).toBeNull();
    expect(h({ host: "lattice.example" })).toContain("not served");
    expect(h({ host: "127.0.0.1.evil.example" })).not.toBeNull();
    expect(h({ host: "127.0.0.1:4310", origin: "http://127.0.0.1:9999" })).not.toBeNull();
  });
  it("with --lan anyone may read and only the bench may write", () => {
    vi.stubEnv("LATTICE_LAN", "1");
    vi.stubEnv("LATTICE_BENCH", "key1");
    const [own] = Object.values(os.networkInterfaces()).flatMap((list) => list ?? []);
    const host = `${own!.family === "IPv6" ? `[${own!.address}]` : own!.address}:4310`;
    const lan = (cookie: string, method: string) => refusal(new Headers({ host, cookie }), method);
    // A name that is made to lead here is not one of this machine's.
    for (const name of ["lattice.example:4310", "203.0.113.9:4310", `${os.hostname()}.example:4310`, ""])
      expect(refusal(new Headers({ host: name })), name).toContain("not served");
    expect(refusal(new Headers({ host: `${os.hostname()}:4310` }))).toBeNull();
    expect(lan("", "GET")).toBeNull();
    expect(lan("", "PUT")).toContain("for reading");
    expect(lan("", "HEAD")).toBeNull();
    const none = new Headers({ host });
    expect([admit("key2", none), admit(null, none), admit("", none)]).toEqual([null, null, null]);
    const [one, two] = [admit("key1", none)!, admit("key1", none)!];
    expect(lan("lattice-bench-4310=key1", "PUT")).toContain("for reading");
    expect(lan(`lattice-bench-4310=${one}x`, "PUT")).toContain("for reading");
    expect(lan(`lattice-bench-4311=${one}`, "PUT")).toContain("for reading");
    for (const c of [one, two]) expect(lan(`a=b; lattice-bench-4310=${c}`, "PUT")).toBeNull();
    // One is closed out, the other goes on.
    const [id] = one.split(".");
    expect(
      holders(id!)
        .map((h) => [h.mine, h.who])
        .sort(),
    ).toEqual([
      [false, "a browser on some system"],
      [true, "a browser on some system"],
    ]);
    expect([closeHolder(id!), closeHolder(id!), closeHolder("nobody")]).toEqual([true, false, false]);
    expect(lan(`lattice-bench-4310=${one}`, "PUT")).toContain("for reading");
    expect(lan(`lattice-bench-4310=${two}`, "PUT")).toBeNull();
    vi.stubEnv("LATTICE_BENCH", "");
    expect(lan(`lattice-bench-4310=${two}`, "PUT")).toContain("for reading");
    vi.unstubAllEnvs();
  });
  it("a copy with a passphrase opens to the right one only, and wrong ones have to wait longer each time", () => {
    const asks = (cookie: string) => locked(new Headers({ host: "127.0.0.1:4310", cookie }));
    expect(asks("")).toBe(false);
    vi.stubEnv("LATTICE_PASSPHRASE", "three blind mice");
    expect([asks(""), asks("lattice-open-4310=open"), asks("lattice-open-4310=open.x")]).toEqual([true, true, true]);
    let now = 1_000_000;
    expect(unlock("three blind", now)).toEqual({ wait_ms: 1000 });
    // Too soon: not even looked at.
    expect(unlock("three blind mice", now + 500)).toEqual({ wait_ms: 500 });
    expect(unlock("", (now += 1000))).toEqual({ wait_ms: 2000 });
    const open = unlock("three blind mice", (now += 2000));
    if (!("cookie" in open)) throw new Error("not opened");
    expect(asks(`lattice-open-4310=${open.cookie}`)).toBe(false);
    expect(asks(`lattice-open-4311=${open.cookie}`)).toBe(true);
    vi.unstubAllEnvs();
  });
});
