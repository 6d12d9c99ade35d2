import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import type { ReadableStream } from "node:stream/web";
import { unzipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { catalogue } from "../core/testing";
import { readProject } from "../core/project";

let dir = "";
let api: typeof import("./keeping");
let projects: typeof import("./projects");
let store: typeof import("./store");
beforeAll(async () => {
  dir = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-keep-"));
  process.env.LATTICE_DATA = dir;
  [api, projects, store] = await Promise.all([import("./keeping"), import("./projects"), import("./store")]);
});
afterAll(() => {
  store.closeDatabase();
  fs.rmSync(dir, { recursive: true, force: true });
});
async function bytesOf(s: ReadableStream) {
  const list: Buffer[] = [];
  for await (const chunk of Readable.fromWeb(s)) list.push(chunk as Buffer);
  return Buffer.concat(list);
}
const stream = (b: Uint8Array) => Readable.toWeb(Readable.from([b])) as ReadableStream;
const titles = () =>
  projects
    .list()
    .map((p) => p.title)
    .sort();

describe("keeping everything", () => {
  it("a backup is taken, sent in again with what it would do, and restored or forgotten", async () => {
    const all = titles();
    const { name, bytes, stream: out } = await api.backupFile();
    expect(name).toMatch(/^young-lattice-\d{4}-\d\d-\d\d\.sqlite$/);
    const copy = await bytesOf(out);
    expect(copy.length).toBe(bytes);
    expect(fs.readdirSync(dir).filter((n) => n.startsWith("backup-"))).toEqual([]);
    const gone = projects.list()[0]!;
    projects.remove(gone.id);
    projects.create({ title: "Made since" });
    const taken = await api.receive(stream(copy));
    if (taken.status !== 200) throw new Error("not taken");
    expect(taken.body.preview).toMatchObject({ back: [gone.title], lost: ["Made since"] });
    expect(await api.answerCopy({ token: taken.body.token, restore: false })).toEqual({
      status: 200,
      body: { kept: null },
    });
    expect(await api.answerCopy({ token: taken.body.token, restore: true })).toMatchObject({ status: 404 });
    expect(titles()).toContain("Made since");
    const again = await api.receive(stream(copy));
    if (again.status !== 200) throw new Error("not taken");
    const done = await api.answerCopy({ token: again.body.token, restore: true });
    expect(done.status === 200 && done.body.kept).toMatch(/before-restore/);
    expect(titles()).toEqual(all);
    expect(projects.get(gone.id).status).toBe(200);
    expect(fs.readdirSync(dir).filter((n) => n.startsWith("incoming-"))).toEqual([]);
  });
  it.each([null, {}, { token: "../../etc/pass", restore: true }, { token: "aaaaaaaaaaaa", restore: "yes" }])(
    "refuses %j",
    async (x) => expect((await api.answerCopy(x)).status).toBe(400),
  );
  it("refuses what is no backup with a sentence, and leaves nothing behind", async () => {
    await expect(api.receive(stream(Buffer.from("hello")))).rejects.toThrow("no backup that can be used");
    expect((await api.receive(null)).status).toBe(400);
    expect(fs.readdirSync(dir).filter((n) => n.startsWith("incoming-"))).toEqual([]);
  });
  it("exports every project as an open file that reads back as the same", async () => {
    const made = projects.create({ title: "Über/../: \u202e<x>" });
    if (made.status !== 201) throw new Error("not made");
    const files = unzipSync((await api.exportZip()).data);
    const names = Object.keys(files);
    expect(names).toContain("README.txt");
    expect(names.filter((n) => n.startsWith("projects/"))).toHaveLength(projects.list().length);
    for (const n of names) expect(n).toMatch(/^(README\.txt|(projects|parts)\/[\w.-]+\.json)$/);
    for (const p of projects.list()) {
      const file = names.find((n) => n.endsWith(`-${p.id}.lattice.json`))!;
      const read = readProject(new TextDecoder().decode(files[file]), catalogue);
      expect(read.ok && read.project.title).toBe(p.title);
    }
  });
  it("the bin gives back, and deletes for good only what is in it", () => {
    const made = projects.create({ title: "Bound for the bin" });
    if (made.status !== 201) throw new Error("not made");
    const { id } = made.body;
    expect(api.answerBin({ id, do: "delete for good" }).status).toBe(404);
    projects.remove(id);
    expect(api.bin().map((r) => r.id)).toContain(id);
    expect(projects.get(id).status).toBe(404);
    expect(projects.revisions(id).status).toBe(404);
    expect(projects.revision(id, 1).status).toBe(404);
    expect(api.answerBin({ id, do: "bring back" }).status).toBe(200);
    expect(projects.get(id).status).toBe(200);
    for (const bad of [null, { id }, { id, do: "keep" }, { id: 3, do: "bring back" }])
      expect(api.answerBin(bad).status).toBe(400);
  });
  it("one broken document harms nothing else, and its last readable version stands in for it", async () => {
    const made = projects.create({ title: "Broken" });
    if (made.status !== 201) throw new Error("not made");
    const { id, document } = made.body;
    const goes = projects.save(id, { base: 1, document: { ...(document as object), title: "Broken 2" } });
    expect(goes.status).toBe(200);
    const db = store.database();
    db.prepare('UPDATE projects SET document = \'{"title": "Bro\' WHERE id = ?').run(id);
    db.prepare("UPDATE revisions SET document = 'x' WHERE project_id = ? AND version = 2").run(id);
    db.prepare("INSERT INTO own_parts (id, document, updated_at) VALUES ('module/broken', '{', '')").run();
    expect(titles()).toContain("Broken 2");
    expect(projects.get(id)).toMatchObject({
      status: 200,
      body: { version: 2, from: 1, document: { title: "Broken" } },
    });
    expect(projects.revisions(id)).toMatchObject({ status: 200, body: [{ version: 2 }, { version: 1 }] });
    expect(projects.revision(id, 2).status).toBe(409);
    const parts = await import("./parts");
    expect(parts.ownParts().map((p) => p.id)).not.toContain("module/broken");
    expect(parts.partPage("module/bme280")!.usedIn.length).toBeGreaterThan(0);
    const { glance } = await import("./glance");
    expect(await glance(id)).toMatchObject({ status: 400 });
    (await import("./heavy")).heavy().end();
    expect(Object.keys(unzipSync((await api.exportZip()).data))).toContain(`projects/broken-2-${id}.lattice.json`);
    // The next save mends it.
    expect(projects.save(id, { base: 2, document: { ...(document as object), title: "Mended" } }).status).toBe(200);
    expect(projects.get(id)).toMatchObject({ status: 200, body: { version: 3, document: { title: "Mended" } } });
    db.prepare("UPDATE projects SET document = '' WHERE id = ?").run(id);
    db.prepare("UPDATE revisions SET document = '' WHERE project_id = ?").run(id);
    expect(projects.get(id)).toMatchObject({
      status: 409,
      body: { message: expect.stringContaining("damaged") as string },
    });
    db.prepare("DELETE FROM own_parts WHERE id = 'module/broken'").run();
    projects.remove(id);
  });
  it("at a normal stop all stands in the one file", () => {
    projects.create({ title: "Last words" });
    store.closeDatabase();
    expect(fs.readdirSync(dir).filter((n) => /-(wal|shm)$/.test(n))).toEqual([]);
    expect(titles()).toContain("Last words");
  });
});
