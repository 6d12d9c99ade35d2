import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { applyEdit, readProject, writeProject, type Project } from "../../project";
import { MARK, REGIONS } from "../../project/own-code";
import { BOARD3, BOARD5, catalogue, make, planned, USB } from "../../testing";
import { TARGETS, targetById } from "..";
import { adopt } from "./adopt";
import { fillOwn, place, readOwn } from "./marks";

const lamp = (host: string, n: number) => ({ ref: `D${n}`, part: "discrete/led-red", host });
const one = () => planned([BOARD3, USB, { ref: "D1", part: "discrete/led-red" }]);
const computer = () =>
  planned([
    { ref: "B1", part: "board/linux-forty" },
    { ref: "D1", part: "discrete/led-red" },
  ]);
/** A project of every target. */
const chip = () => planned([{ ref: "B1", part: "chip/attiny85-dip8" }, USB, { ref: "D1", part: "discrete/led-red" }]);
/** Files of all targets by "target path", and how adopt reads them. */
const written = (p: Project) => {
  const c = circuitOf(p, catalogue);
  return new Map(
    TARGETS.filter((t) => t.unfit(c) === null).flatMap((t) =>
      t.files(c).map((f) => [`${t.id} ${f.path}`, f.text] as const),
    ),
  );
};
const take = (p: Project, files: ReadonlyMap<string, string>) =>
  adopt(circuitOf(p, catalogue), (target, path) => files.get(`${target} ${path}`) ?? null);
const typed = (text: string, region: string, code: string) =>
  text.replace(new RegExp(`(>>> your code: ${region} [0-9a-f]{8}\\n)`), (_a, m: string) => m + code);

/** Code of any kind that people write: blank lines, tabs, no newline at the end, other alphabets; but no marks. */
const anyCode = fc
  .array(fc.string({ unit: "grapheme", maxLength: 30 }), { maxLength: 8 })
  .map((l) => l.join("\n"))
  .filter((t) => !MARK.test(t) && !/[\r\u2028\u2029]/.test(t));

describe("own code in its places", () => {
  it("comes back as it was put in, however deep it stands", () => {
    fc.assert(
      fc.property(anyCode, fc.constantFrom("", "  ", "\t", "        "), (code, deep) => {
        const file = fillOwn(`first\n\n${deep}${place("loop")}\nlast\n`, "//", () => code);
        const back = readOwn(file);
        expect(back.problems).toEqual([]);
        expect(back.outside).toBe(false);
        const got = back.regions.get("loop")!;
        expect(got.edited).toBe(false);
        expect(got.text.replace(/\n$/, "")).toBe(code.replace(/\n$/, ""));
      }),
    );
  });
  it("is told apart from what was written, inside and outside of its marks", () => {
    const file = fillOwn(`a\n  ${place("loop")}\nb\n`, "#", () => "x = 1\n");
    expect(readOwn(file.replace("x = 1", "x = 2"))).toMatchObject({ outside: false });
    expect(readOwn(file.replace("x = 1", "x = 2")).regions.get("loop")).toEqual({ text: "x = 2\n", edited: true });
    expect(readOwn(file.replace("\nb\n", "\nB\n"))).toMatchObject({ outside: true });
    expect(readOwn(file.replace(/\n/g, "\r\n"))).toMatchObject({ outside: false, problems: [] });
    expect(readOwn("no marks\n")).toMatchObject({ outside: null, problems: [] });
  });
  it("that is broken is said with its line, and nothing is guessed", () => {
    const file = fillOwn(`a\n${place("loop")}\n${place("setup")}\nb\n`, "//", () => "x;\n");
    const without = (n: number) =>
      file
        .split("\n")
        .filter((_, i) => i !== n)
        .join("\n");
    expect(readOwn(without(3)).problems).toEqual(['line 4: "setup" begins before "loop" of line 2 has ended']);
    expect(readOwn(without(1)).problems).toEqual(["line 3: own code ends here and has not begun"]);
    expect(readOwn(without(6)).problems).toEqual(['line 5: "setup" begins here and never ends']);
    fc.assert(fc.property(fc.string({ unit: "binary", maxLength: 400 }), (t) => Array.isArray(readOwn(t).problems)));
  });
});

describe("own code of a project", () => {
  it.each([
    ["a board", one, ["sketch", "micropython"]],
    ["a bare chip", chip, ["avr-c"]],
    ["a computer", computer, ["python"]],
  ] as const)("of %s goes out with every target that has places, and comes back", (_of, made, targets) => {
    let p: Project = made();
    const files = written(p);
    const edited = new Map(
      [...files].map(([k, text]) => [
        k,
        Object.values(REGIONS)
          .flat()
          .reduce((t, r) => typed(t, r, `    mine_${r}(1);\n\n`), text),
      ]),
    );
    const own = take(p, edited);
    expect(own.problems).toEqual([]);
    expect(own.outside).toEqual([]);
    expect(own.edits.map((e) => `${e.target} ${e.region}`).sort()).toEqual(
      targets.flatMap((t) => REGIONS[t]!.map((r) => `${t} ${r}`)).sort(),
    );
    for (const e of own.edits) p = applyEdit(p, e, catalogue);
    expect(readProject(writeProject(p), catalogue)).toMatchObject({ ok: true });
    // Written again, it stands in its place; read again, nothing is new.
    const again = written(p);
    expect([...again.values()].filter((t) => t.includes("mine_loop(1);"))).toHaveLength(targets.length);
    expect(take(p, again).edits).toEqual([]);
    // Emptied in the file, it goes from the project too.
    expect(take(p, files).edits.every((e) => e.text === "")).toBe(true);
  });
  it("belongs to its board where there are several", () => {
    const p = planned([BOARD5, { ...BOARD3, ref: "B2" }, USB, lamp("B1", 1), lamp("B2", 2)]);
    const files = written(p);
    const key = "sketch B2/starter/starter.ino";
    expect([...files.keys()]).toContain(key);
    const own = take(p, new Map([...files, [key, typed(files.get(key)!, "loop", "  second();\n")]]));
    expect(own.edits).toEqual([{ type: "setCode", target: "sketch", region: "B2.loop", text: "second();\n" }]);
    const q = applyEdit(p, own.edits[0]!, catalogue);
    expect(written(q).get(key)).toContain("  second();\n");
    expect(written(q).get("sketch B1/starter/starter.ino")).not.toContain("second");
  });
  it("is refused for places and targets that no program has, and where it would end itself", () => {
    const bad = (code: object) => {
      const r = readProject(JSON.stringify({ ...one(), code }), catalogue);
      return r.ok ? [] : r.problems.map((x) => `${x.path}: ${x.message}`);
    };
    expect(bad({ basic: { loop: "" } })).toEqual([
      'code/basic: there is no target "basic" with places for own code; they are sketch, micropython, python, avr-c',
    ]);
    expect(bad({ sketch: { lop: "x" } })).toEqual([
      'code/sketch/lop: sketch programs have no place "lop" for own code; theirs are globals, setup, loop',
    ]);
    expect(bad({ sketch: { "B9.loop": "x" } })).toEqual(['code/sketch/B9.loop: there is no part "B9" in this project']);
    expect(bad({ sketch: { loop: "// <<< your code: loop\n" } })).toHaveLength(1);
    expect(bad({ sketch: { loop: "x();\n" }, micropython: { globals: "y = 1\n" } })).toEqual([]);
  });
  it("every target's places are those that its files have", () => {
    for (const [id, names] of Object.entries(REGIONS)) {
      const c = circuitOf(id === "avr-c" ? chip() : id === "python" ? computer() : one(), catalogue);
      const found = targetById(id)!
        .files(c)
        .flatMap((f) => [...readOwn(f.text).regions.keys()]);
      expect(found, id).toEqual(names);
    }
    expect(make([], []).code).toEqual({});
  });
});
