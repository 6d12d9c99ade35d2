import fs from "node:fs";
import { describe, expect, it } from "vitest";
import {
  applyEdit,
  emptyProject,
  loadProject,
  nextRef,
  projectJsonSchema,
  readProject,
  writeProject,
  type Edit,
} from ".";
import { BOARD3, BOARD5, CABLE, catalogue, make, USB } from "../testing";

const base = { format: "young-lattice-project", version: 1, title: "t", parts: [BOARD5, USB] };
const problems = (doc: unknown) => {
  const r = loadProject(doc, catalogue);
  return r.ok ? [] : r.problems;
};

describe("reading project files", () => {
  it.each([
    [{ title: "" }, "title"],
    [{ title: " \u00a0 " }, "title"],
    [{ buses: [{ host: "B1", bus: "i2c0", clock_Hz: 1e300 }] }, "buses/0/clock_Hz"],
    [{ drawer: { resistors_ohm: [1e300] } }, "drawer/resistors_ohm/0"],
    [{ drawer: { capacitors_F: [1e-300] } }, "drawer/capacitors_F/0"],
    [
      { parts: [BOARD5, { ref: "D1", part: "discrete/led-red", companions: { seriesResistor: { ohm: 1e300 } } }] },
      "parts/1/companions/seriesResistor/ohm",
    ],
  ])("what nothing on a bench can be is refused with its place: %j", (change, path) => {
    expect(problems({ ...base, ...change }).map((p) => p.path)).toContain(path);
  });
  it("refuses unknown keys with their path", () => {
    expect(problems({ ...base, colour: 1 })).toEqual([
      { path: "colour", message: 'the key "colour" is not known here; remove it' },
    ]);
    expect(problems({ ...base, parts: [{ ...BOARD5, speed: 1 }] })[0]!.path).toBe("parts/0/speed");
  });
  it("refuses a newer version and a foreign format in words", () => {
    expect(problems({ ...base, version: 2 })[0]!.message).toContain("reads up to version 1");
    expect(problems({ ...base, format: "x" })[0]!.path).toBe("format");
    expect(problems([])[0]!.message).toContain("one JSON object");
  });
  it("passes over nobody who must stay apart", () => {
    expect(problems({ ...base, isolated: [["B1"], ["M9.far"]] })).toEqual([
      {
        path: "isolated/1/0",
        message: 'there is no part "M9" in this project; a member is a part (M1) or a side of one (M1.far)',
      },
    ]);
    expect(problems({ ...base, isolated: [["B1"], ["S1"]] })).toEqual([]);
  });
  it("names the part, pin, option or reference that is wrong", () => {
    expect(problems({ ...base, parts: [{ ref: "M1", part: "module/bme180" }] })[0]).toEqual({
      path: "parts/0/part",
      message: 'there is no part "module/bme180"',
    });
    expect(problems({ ...base, links: [{ from: "B1.D99", to: "S1.USB" }] })[0]!.message).toContain('no pin "D99"');
    expect(problems({ ...base, links: [{ from: "B9.D1", to: "S1.USB" }] })[0]!.message).toContain('"B9"');
    const led = { ref: "D1", part: "discrete/led-red", options: { current_mA: 300 } };
    expect(problems({ ...base, parts: [led] })[0]!.message).toContain("outside 0.5 to 20 mA");
    expect(problems({ ...base, parts: [BOARD5, BOARD5] })[0]!.message).toContain("used twice");
    expect(problems({ ...base, links: [{ from: "S1.USB", to: "B1.D2" }] })[0]!.message).toContain("USB socket");
  });
  it("takes aliases and stores the printed label", () => {
    const p = make([BOARD3, USB], [["B1.GPIO4", "B1.P7"]]);
    expect(p.links[0]).toEqual({ from: "B1.GP4", to: "B1.GP5" });
  });
  it("refuses text that is huge, deep or no JSON", () => {
    expect(readProject("x".repeat(2_100_000), catalogue)).toMatchObject({ ok: false });
    expect(readProject("{", catalogue)).toMatchObject({ ok: false, problems: [{ path: "" }] });
    const deep = `${'{"a":'.repeat(60)}1${"}".repeat(60)}`;
    expect(readProject(deep, catalogue)).toMatchObject({ ok: false });
  });
  it("reads what it writes", () => {
    const p = make([BOARD5, USB], [CABLE]);
    const again = readProject(writeProject(p), catalogue);
    expect(again.ok && again.project).toEqual(p);
  });
  it("refuses a part of one's own under a shipped id, whatever it says, and edits that would put it there", () => {
    for (const id of [
      "board/rp2040-forty",
      "module/bme280",
      "discrete/led-red",
      "connector/header-7",
      "supply/li-ion-1s",
    ]) {
      const base = catalogue.get(id)!;
      const forged = {
        ...base,
        supplies: {
          ...base.supplies,
          ...Object.fromEntries(Object.entries(base.supplies).map(([k, s]) => [k, { ...s, absMax_V: 90 }])),
        },
      };
      const doc = {
        format: "young-lattice-project",
        version: 1,
        title: "Forged",
        parts: [{ ref: "X1", part: id }],
        customParts: [forged],
      };
      const r = readProject(JSON.stringify(doc), catalogue);
      expect(r.ok, id).toBe(false);
      if (!r.ok) expect(r.problems.find((p) => p.path === "customParts/0/id")?.message).toContain("ships with the app");
      const open = { ...emptyProject("x"), parts: [{ ref: "X1", part: id }] };
      expect(applyEdit(open, { type: "setOwnPart", part: forged }, catalogue)).toBe(open);
      const own = { ...forged, id: `${id}-own` };
      expect(applyEdit(open, { type: "setOwnPart", part: own }, catalogue).customParts).toHaveLength(1);
      const twice = { ...doc, customParts: [own, own] };
      const t = readProject(JSON.stringify(twice), catalogue);
      expect(t.ok ? [] : t.problems.map((p) => p.path)).toContain("customParts/1/id");
    }
  });
  it("ships its JSON Schema, current and of a kind that other tools read", () => {
    const file = JSON.parse(fs.readFileSync(new URL("../../../docs/project.schema.json", import.meta.url), "utf8"));
    expect(file).toEqual(JSON.parse(JSON.stringify(projectJsonSchema())));
    expect(file.additionalProperties).toBe(false);
    expect(file.required).toEqual(["format", "version", "title"]);
    expect(Object.keys(file.properties)).toContain("houseRules");
  });
});

describe("edits", () => {
  const p = make(
    [BOARD5, USB, { ref: "D1", part: "discrete/led-red" }],
    [CABLE, ["D1.A", "B1.D7"], ["D1.K", "B1.GND"]],
  );
  const after = (edit: Edit) => applyEdit(p, edit, catalogue);
  it("never changes the project it is given", () => {
    const text = JSON.stringify(p);
    after({ type: "removePart", ref: "D1" });
    after({ type: "moveLink", end: "D1.A", from: "B1.D7", to: "B1.D8" });
    expect(JSON.stringify(p)).toBe(text);
  });
  it("removes a part with its links", () => {
    const q = after({ type: "removePart", ref: "D1" });
    expect(q.parts.map((x) => x.ref)).toEqual(["B1", "S1"]);
    expect(q.links).toHaveLength(1);
  });
  it("moves, locks and unlocks a link", () => {
    const moved = after({ type: "moveLink", end: "D1.A", from: "B1.D7", to: "B1.D8" });
    expect(moved.links).toContainEqual({ from: "D1.A", to: "B1.D8" });
    const locked = after({ type: "lock", from: "B1.D7", to: "D1.A", locked: true });
    expect(locked.links[1]).toEqual({ from: "D1.A", to: "B1.D7", locked: true });
    expect(applyEdit(locked, { type: "lock", from: "D1.A", to: "B1.D7", locked: false }, catalogue).links).toEqual(
      p.links,
    );
  });
  it("keeps only the cable when the board changes", () => {
    const q = after({ type: "changePart", ref: "B1", part: "board/rp2040-forty" });
    expect(q.links).toEqual([{ from: "S1.USB", to: "B1.USB" }]);
  });
  it("numbers new parts by kind", () => {
    expect(nextRef(p, "discrete/led-red")).toBe("LED1");
    // No reference of a loose part reads like a pin that boards print.
    for (const id of catalogue.parts.map((x) => x.id).filter((x) => x.startsWith("discrete/")))
      expect(nextRef(p, id), id).not.toMatch(/^(D|A|GP|GPIO|IO|P[A-Z])\d+$/);
    expect(nextRef(p, "module/bme280")).toBe("M1");
    expect(nextRef(p, "discrete/button")).toBe("SW1");
  });
  it("keeps lists of grounds that stay apart, without parts that are gone", () => {
    const apart = after({ type: "setIsolated", isolated: [["B1"], ["D1", "S1"]] });
    expect(apart.isolated).toEqual([["B1"], ["D1", "S1"]]);
    expect(applyEdit(apart, { type: "removePart", ref: "D1" }, catalogue).isolated).toEqual([["B1"], ["S1"]]);
    expect(applyEdit(apart, { type: "removePart", ref: "B1" }, catalogue).isolated).toEqual([["D1", "S1"]]);
    expect(applyEdit(apart, { type: "setIsolated", isolated: [] }, catalogue).isolated).toEqual([]);
  });
  it("asks where it lives, and takes a room and an iron for granted", () => {
    expect(p.brief).toMatchObject({ place: "room", iron: true });
    expect(after({ type: "setBrief", brief: { place: "sun", iron: false } }).brief).toMatchObject({
      place: "sun",
      iron: false,
      stage: "prototype",
    });
    expect(problems({ ...base, brief: { place: "moon" } })[0]!.path).toBe("brief/place");
  });
  it("ticks and unticks without piling up entries", () => {
    const tick = (done: boolean): Edit => ({ type: "tick", list: "wires", id: "w1", done, at: "2026-01-01" });
    const q = applyEdit(after(tick(true)), tick(true), catalogue);
    expect(q.bench).toHaveLength(1);
    expect(applyEdit(q, tick(false), catalogue).bench).toHaveLength(0);
  });
});
