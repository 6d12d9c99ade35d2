import Database from "better-sqlite3";
import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { backupTo, contentsOf, expectWhole, previewOf, restoreFrom } from "./backup";
import { bringBack, clearBin, deleteForGood, KEPT_DAYS, listBin } from "./bin";
import { openDatabase, type Db } from "./database";
import { MIGRATIONS } from "./migrations";
import { deleteProject, getProject, insertProject, listProjects, listRevisions, saveProject } from "./projects";
import { saveOwnPart } from "./own-parts";

const made: string[] = [];
const open: Db[] = [];
const folder = () => {
  const dir = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-backup-"));
  made.push(dir);
  return dir;
};
function data(titles: readonly string[], dir = folder()) {
  const db = openDatabase(dir);
  open.push(db);
  for (const t of titles) insertProject(db, `id-${t}`, t, `{"title":"${t}"}`, "made");
  return { db, dir };
}
afterAll(() => {
  open.forEach((db) => db.close());
  made.forEach((d) => fs.rmSync(d, { recursive: true, force: true }));
});
const titles = (db: Db) =>
  listProjects(db)
    .map((p) => p.title)
    .sort();

describe("the bin", () => {
  it("keeps a deleted project with all its versions, and gives it back under its own address", () => {
    const { db } = data(["A", "B"]);
    saveProject(db, "id-A", 1, "A2", `{"title":"A2"}`, "named");
    expect(deleteProject(db, "id-A")).toBe(true);
    expect(deleteProject(db, "id-A")).toBe(false);
    expect(titles(db)).toEqual(["B"]);
    expect(getProject(db, "id-A")).toBeUndefined();
    expect(saveProject(db, "id-A", 2, "x", "{}", "x")).toEqual({ ok: false, row: undefined });
    expect(listBin(db)).toMatchObject([{ id: "id-A", title: "A2", version: 2 }]);
    expect(bringBack(db, "id-A")).toBe(true);
    expect(bringBack(db, "id-A")).toBe(false);
    expect(listRevisions(db, "id-A").map((r) => r.version)).toEqual([2, 1]);
    expect(titles(db)).toEqual(["A2", "B"]);
  });
  it("is cleared of what is older than its time, and of nothing else", () => {
    const { db } = data(["A", "B"]);
    deleteProject(db, "id-A");
    const later = (days: number) => new Date(Date.now() + days * 86_400_000);
    expect(clearBin(db, later(KEPT_DAYS - 1))).toBe(0);
    expect(clearBin(db, later(KEPT_DAYS + 1))).toBe(1);
    expect(listBin(db)).toEqual([]);
    expect(listRevisions(db, "id-A")).toEqual([]);
    expect(titles(db)).toEqual(["B"]);
  });
  it("only what is in it can be deleted for good", () => {
    const { db } = data(["A"]);
    expect(deleteForGood(db, "id-A")).toBe(false);
    deleteProject(db, "id-A");
    expect(deleteForGood(db, "id-A")).toBe(true);
    expect(bringBack(db, "id-A")).toBe(false);
  });
});

describe("saves that are known by their ids", () => {
  it("the same save again is answered as the first time, also when others came after it", () => {
    const { db } = data(["A"]);
    const save = (base: number, saveId: string) =>
      saveProject(db, "id-A", base, "A", `{"n":"${saveId}"}`, "", { saveId });
    expect(save(1, "save-one")).toEqual({ ok: true, version: 2 });
    expect(save(2, "save-two")).toEqual({ ok: true, version: 3 });
    expect(save(1, "save-one")).toEqual({ ok: true, version: 2 });
    expect(getProject(db, "id-A")).toMatchObject({ version: 3, document: '{"n":"save-two"}' });
    expect(save(1, "save-three")).toMatchObject({ ok: false });
  });
  it("knows the last hundred", () => {
    const { db } = data(["A"]);
    for (let i = 1; i <= 150; i++) saveProject(db, "id-A", i, "A", "{}", "", { saveId: `save-${i}` });
    expect(saveProject(db, "id-A", 1, "A", "{}", "", { saveId: "save-149" })).toEqual({ ok: true, version: 150 });
    expect(saveProject(db, "id-A", 1, "A", "{}", "", { saveId: "save-1" })).toMatchObject({ ok: false });
  });
  it("one side of two that were put together stays as a version", () => {
    const { db } = data(["A"]);
    saveProject(db, "id-A", 1, "Theirs", `{"w":"theirs"}`, "theirs");
    const r = saveProject(db, "id-A", 2, "Both", `{"w":"both"}`, "both", {
      side: { document: `{"w":"mine"}`, summary: "mine" },
    });
    expect(r).toEqual({ ok: true, version: 4 });
    expect(listRevisions(db, "id-A").map((x) => x.summary)).toEqual(["both", "mine", "theirs", "made"]);
    expect(getProject(db, "id-A")).toMatchObject({ version: 4, document: `{"w":"both"}` });
  });
});

describe("a backup", () => {
  it("holds all that was written before it began, while others write on, in one file of its owner's", async () => {
    const { db, dir } = data(["A", "B"]);
    saveOwnPart(db, "own/x", "{}");
    deleteProject(db, "id-B");
    const other = openDatabase(dir);
    open.push(other);
    const file = path.join(folder(), "copy.sqlite");
    const writing = backupTo(db, file);
    insertProject(other, "id-C", "C", "{}", "made");
    expect(await writing).toMatchObject({ deleted: 1, parts: 1 });
    expect(fs.readdirSync(path.dirname(file))).toEqual(["copy.sqlite"]);
    expect((fs.statSync(file).mode & 0o777).toString(8)).toBe("600");
    expect(() => expectWhole(file)).not.toThrow();
    const read = new Database(file, { readonly: true });
    expect(contentsOf(read).versions).toBeGreaterThanOrEqual(2);
    read.close();
  });
  it("puts all back in one go; what was there is kept beside it, and another connection sees it", async () => {
    const a = data(["A", "Both"]);
    const file = path.join(folder(), "copy.sqlite");
    await backupTo(a.db, file);
    const b = data(["Both", "Only here"]);
    saveProject(b.db, "id-Both", 1, "Both", `{"title":"changed"}`, "changed");
    const other = openDatabase(b.dir);
    open.push(other);
    expect(previewOf(b.db, file, b.dir)).toMatchObject({
      back: ["A"],
      lost: ["Only here"],
      older: ["Both"],
      newer: [],
      same: 0,
      copy: { projects: 2 },
      here: { projects: 2, versions: 3 },
    });
    expect(titles(b.db)).toEqual(["Both", "Only here"]);
    const kept = await restoreFrom(b.db, file, b.dir, new Date());
    expect(titles(b.db)).toEqual(["A", "Both"]);
    expect(titles(other)).toEqual(["A", "Both"]);
    expect(getProject(other, "id-Both")).toMatchObject({ document: `{"title":"Both"}` });
    const before = new Database(path.join(b.dir, kept), { readonly: true });
    expect(titles(before)).toEqual(["Both", "Only here"]);
    before.close();
    expect(fs.readdirSync(b.dir).filter((n) => /restore-[^2]|part/.test(n))).toEqual([]);
    // Writing goes on.
    expect(saveProject(other, "id-A", 1, "A", "{}", "on")).toEqual({ ok: true, version: 2 });
  });
  it("of an older version comes back in the present shape", async () => {
    const old = path.join(folder(), "old.sqlite");
    const made = new Database(old);
    made.exec(MIGRATIONS[0]!);
    made.pragma("user_version = 1");
    made.exec(
      "INSERT INTO projects VALUES ('p', 'Old', '{}', 1, '', ''); INSERT INTO revisions VALUES ('p', 1, '{}', '', '')",
    );
    made.close();
    const before = fs.readFileSync(old);
    const { db, dir } = data(["New"]);
    await restoreFrom(db, old, dir, new Date());
    expect(titles(db)).toEqual(["Old"]);
    expect(deleteProject(db, "p")).toBe(true);
    expect(fs.readFileSync(old)).toEqual(before);
  });
  it.each([
    ["nothing", () => Buffer.alloc(0)],
    ["text", () => Buffer.from("{}".repeat(4000))],
    ["a whole file cut in half", (whole: Buffer) => whole.subarray(0, Math.floor(whole.length / 2))],
    [
      "a file with a page overwritten",
      (whole: Buffer) => Buffer.concat([whole.subarray(0, 4096), Buffer.alloc(4096, 7), whole.subarray(8192)]),
    ],
  ])("is refused when it is %s, and nothing changes", async (_name, spoil) => {
    const a = data(["A", "B", "C"]);
    const file = path.join(folder(), "copy.sqlite");
    await backupTo(a.db, file);
    fs.writeFileSync(file, spoil(fs.readFileSync(file)));
    const { db, dir } = data(["Stays"]);
    const said = /copy\.sqlite is no backup that can be used/;
    expect(() => previewOf(db, file, dir)).toThrow(said);
    await expect(restoreFrom(db, file, dir, new Date())).rejects.toThrow(said);
    expect(titles(db)).toEqual(["Stays"]);
    expect(fs.readdirSync(dir).filter((n) => n.startsWith("restore-"))).toEqual([]);
  });
  it.each([
    ["another program's", "CREATE TABLE notes (a)", "holds no projects"],
    ["a newer version's", `${MIGRATIONS.join("")}; PRAGMA user_version = 99`, "newer version"],
    [
      "one with programs of its own",
      `${MIGRATIONS.join("")}; PRAGMA user_version = ${MIGRATIONS.length}; CREATE TRIGGER t AFTER INSERT ON projects BEGIN DELETE FROM settings; END`,
      "programs of its own",
    ],
    [
      "one whose versions belong to nobody",
      `${MIGRATIONS.join("")}; PRAGMA user_version = ${MIGRATIONS.length}; INSERT INTO revisions VALUES ('x', 1, '', '', '')`,
      "belong to no project",
    ],
  ])("is refused when it is %s", (_name, sql, said) => {
    const file = path.join(folder(), "odd.sqlite");
    const odd = new Database(file);
    odd.pragma("foreign_keys = OFF");
    odd.exec(sql);
    odd.close();
    expect(() => expectWhole(file)).toThrow(said);
  });
});
