import { spawn } from "node:child_process";
import Database from "better-sqlite3";
import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { openDatabase } from "./database";
import { MIGRATIONS } from "./migrations";

const made: string[] = [];
const folder = () => {
  const dir = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-open-"));
  made.push(dir);
  return path.join(dir, "data");
};
afterAll(() => made.forEach((d) => fs.rmSync(d, { recursive: true, force: true })));
const FILE = "young-lattice.sqlite";
const rights = (file: string) => (fs.statSync(file).mode & 0o777).toString(8);

describe("the data file", () => {
  it("is its owner's alone, with everything beside it; so is one that was not", () => {
    const at = folder();
    const db = openDatabase(at);
    db.prepare("INSERT INTO settings (key, value) VALUES ('a', 'b')").run();
    expect(rights(at)).toBe("700");
    for (const name of fs.readdirSync(at)) expect(rights(path.join(at, name)), name).toBe("600");
    db.close();
    fs.chmodSync(path.join(at, FILE), 0o644);
    openDatabase(at).close();
    expect(rights(path.join(at, FILE))).toBe("600");
  });
  it("is copied whole before a migration, what stands beside the main file included; an earlier copy stays", () => {
    const at = folder();
    fs.mkdirSync(at);
    const old = new Database(path.join(at, FILE));
    old.pragma("journal_mode = WAL");
    old.pragma("wal_autocheckpoint = 0");
    old.exec(MIGRATIONS[0]!);
    old.pragma("user_version = 1");
    old
      .prepare(
        "INSERT INTO projects (id, title, document, version, created_at, updated_at) VALUES ('p', 'Kept', '{}', 1, '', '')",
      )
      .run();
    // It is still open: the row stands beside the main file.
    openDatabase(at).close();
    const copy = path.join(at, `${FILE}.before-2`);
    expect(rights(copy)).toBe("600");
    const read = new Database(copy, { readonly: true });
    expect(read.pragma("user_version", { simple: true })).toBe(1);
    expect(read.prepare("SELECT title FROM projects").get()).toEqual({ title: "Kept" });
    read.close();
    old.close();
    const before = fs.readFileSync(copy);
    openDatabase(at).close();
    expect(fs.readFileSync(copy)).toEqual(before);
  });
  it("is made once by programs that start at the same time", async () => {
    const at = folder();
    const source = path.join(import.meta.dirname, "../server/store.ts");
    const script = `import(${JSON.stringify(source)}).then(({ database }) => {
      const n = database().prepare("SELECT count(*) AS n FROM projects").get().n;
      console.log("projects " + n);
    });`;
    const one = () =>
      new Promise<string>((resolve) => {
        const child = spawn(process.execPath, ["--import", "tsx", "-e", script], {
          cwd: path.join(import.meta.dirname, "../.."),
          env: { ...process.env, LATTICE_DATA: at },
        });
        let text = "";
        child.stdout.on("data", (t: Buffer) => (text += t.toString()));
        child.stderr.on("data", (t: Buffer) => (text += t.toString()));
        child.on("close", () => resolve(text));
      });
    const said = await Promise.all([one(), one(), one(), one()]);
    for (const text of said) expect(text).toContain("projects 3");
  });
});
