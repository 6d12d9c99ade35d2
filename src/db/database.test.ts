import { spawn } from "node:child_process";
import Database from "better-sqlite3";
import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { openDatabase } from "./database";
import { MIGRATIONS } from "./migrations";
import { DataTrouble, inUse } from "./trouble";

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
  it("loses clocks of buses whose board is gone, in projects and versions, and nothing else", () => {
    const at = folder();
    fs.mkdirSync(at);
    const old = new Database(path.join(at, FILE));
    for (const m of MIGRATIONS.slice(0, 4)) old.exec(m);
    old.pragma("user_version = 4");
    const bus = (host: string) => ({ host, bus: "i2c0", clock_Hz: 400000 });
    const document = { title: "ü", parts: [{ ref: "B1" }], buses: [bus("B2"), bus("B1")], n: 1.5 };
    old
      .prepare(
        "INSERT INTO projects (id, title, document, version, created_at, updated_at) VALUES ('p', '', ?, 1, '', '')",
      )
      .run(JSON.stringify(document));
    old
      .prepare(
        "INSERT INTO projects (id, title, document, version, created_at, updated_at) VALUES ('q', '', '{\"parts\":[]}', 1, '', '')",
      )
      .run();
    old
      .prepare("INSERT INTO revisions (project_id, version, document, summary, at) VALUES ('p', 1, ?, '', '')")
      .run(JSON.stringify(document));
    old.close();
    const db = openDatabase(at);
    for (const table of ["projects WHERE id = 'p'", "revisions"]) {
      const row = db.prepare(`SELECT document FROM ${table}`).get() as { document: string };
      expect(JSON.parse(row.document), table).toEqual({ ...document, buses: [bus("B1")] });
    }
    expect(db.prepare("SELECT document FROM projects WHERE id = 'q'").get()).toEqual({ document: '{"parts":[]}' });
    db.close();
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
  const trouble = (at: string) => {
    try {
      openDatabase(at).close();
    } catch (e) {
      return e instanceof DataTrouble ? e.message : `not told: ${String(e)}`;
    }
    return "opened";
  };
  it("that is damaged, cut, newer, no file or in no folder is said in one sentence with what to do, and left as it is", () => {
    const at = folder();
    openDatabase(at).close();
    const file = path.join(at, FILE);
    const sound = fs.readFileSync(file);
    const spoil = (bytes: Buffer | string) => {
      for (const n of fs.readdirSync(at)) fs.rmSync(path.join(at, n));
      fs.writeFileSync(file, bytes);
    };
    for (const bytes of [
      "these are no data, but a letter to somebody, and a longer one than a header",
      sound.subarray(0, 700),
    ]) {
      spoil(bytes as Buffer);
      expect(trouble(at)).toMatch(/is damaged and can't be read\. There is no copy beside it\./);
      expect(fs.readFileSync(file)).toEqual(Buffer.from(bytes));
    }
    spoil("letters of no meaning ".repeat(10));
    fs.writeFileSync(`${file}.before-2`, sound);
    expect(trouble(at)).toMatch(
      /The last good copy is young-lattice\.sqlite\.before-2, of \d{4}-\d\d-\d\d: stop the app/,
    );
    spoil("");
    fs.writeFileSync(`${file}.before-2`, sound);
    expect(trouble(at)).toContain("is empty: it was cut to nothing");
    // A new one that was stopped before its first byte begins anew.
    spoil("");
    expect(trouble(at)).toBe("opened");
    spoil(sound);
    const newer = new Database(file);
    newer.pragma("user_version = 99");
    newer.close();
    expect(trouble(at)).toContain("was written by a newer version of this program (99)");
    spoil(sound);
    fs.rmSync(file);
    fs.mkdirSync(file);
    expect(trouble(at)).not.toContain("not told");
    expect(trouble(path.join(at, FILE, "..", "..", "note"))).toBe("opened");
    const plain = path.join(path.dirname(at), "a-file");
    fs.writeFileSync(plain, "x");
    expect(trouble(plain)).toContain("is a file, where a folder is needed");
  });
  it("that another program holds is waited for, then said", () => {
    const at = folder();
    openDatabase(at).close();
    const other = new Database(path.join(at, FILE));
    other.exec("BEGIN EXCLUSIVE");
    const mine = new Database(path.join(at, FILE));
    mine.pragma("busy_timeout = 50");
    let told: unknown;
    try {
      mine.prepare("INSERT INTO settings (key, value) VALUES ('a', 'b')").run();
    } catch (e) {
      told = inUse(e, path.join(at, FILE));
    }
    expect(String(told)).toContain("Another program holds the data file");
    other.exec("ROLLBACK");
    other.close();
    mine.close();
    expect(inUse(Object.assign(new Error("a font"), { code: "ENOENT" }), "f")).not.toBeInstanceOf(DataTrouble);
  });
});
