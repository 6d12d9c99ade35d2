import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { applyEdit, readProject, type Project } from "../project";
import { catalogue, check, make } from "../testing";
import { boardsFor, buildIdea, offersFor, readIdea, THINGS, thingsOf, VERBS, type Verb } from ".";
import { PHRASINGS } from "./phrasings";

const empty = () => make([]);
const owning = (parts: Record<string, number>): Project =>
  applyEdit(empty(), { type: "setDrawer", drawer: { parts } }, catalogue);

describe("an idea in a person's own words", () => {
  it("has at least 150 phrasings", () => expect(PHRASINGS.length).toBeGreaterThanOrEqual(150));
  it.each(PHRASINGS)("%s", (text, means) => {
    expect(
      readIdea(text)
        .wishes.map((w) => w.thing)
        .sort(),
    ).toEqual(means.split(" ").filter(Boolean).sort());
  });
  it("says by which words it was understood, what it does without, and what it could not read", () => {
    const r = readIdea("Show the TEMPERATURE, no sound, and please my uncle Fred");
    expect(r.wishes.map((w) => w.by.toLowerCase())).toEqual(["show the temperature", "temperature"].slice(0, 2));
    expect(r.unread).toEqual(["please my uncle Fred"]);
    expect(readIdea("door alarm without a display").without).toContain("text");
  });
  it("tells the words as they were typed, whatever letters stand before them", () => {
    expect(readIdea("İİİ ÄÖÜ ßß: How Warm is it").wishes).toEqual([{ thing: "temperature", by: "How Warm" }]);
  });
  it("hears where and how it lives", () => {
    expect(readIdea("temperature in the garden on batteries, cheap, without soldering").hints).toEqual({
      outdoors: true,
      battery: true,
      cheap: true,
      noIron: true,
    });
    expect(readIdea("exactly how warm is the room").hints).toEqual({ exact: true });
  });
  it("takes hostile and endless text in its stride", () => {
    const t0 = performance.now();
    readIdea("plants ".repeat(5000));
    readIdea("((((" + "a".repeat(3000) + "<script>\u0000\\");
    readIdea("count ".repeat(400) + "door is left ".repeat(100));
    expect(performance.now() - t0).toBeLessThan(2000);
  });
});

describe("the table", () => {
  it("has things for every verb, each with words and ways of parts that exist", () => {
    for (const verb of Object.keys(VERBS) as Verb[]) expect(thingsOf(verb).length, verb).toBeGreaterThan(0);
    expect(new Set(THINGS.map((t) => t.id)).size).toBe(THINGS.length);
    for (const t of THINGS) {
      expect(t.words.length, t.id).toBeGreaterThan(0);
      expect(new Set(t.ways.map((w) => w.id)).size, t.id).toBe(t.ways.length);
      for (const w of t.ways)
        for (const p of w.pieces) expect(catalogue.get(p.part), `${t.id}: ${p.part}`).toBeDefined();
      if (!t.board) for (const w of t.ways) expect(w.pieces.length, t.id).toBeGreaterThan(0);
    }
  });
});

describe("ways are ranked by what decides", () => {
  const first = (thing: string, p: Project, hints = {}) => offersFor([thing], p, catalogue, hints)[0]!.ways[0]!;
  it("the drawer first", () => {
    expect(first("temperature", empty()).id).toBe("sht40");
    const mine = first("temperature", owning({ "module/dht22": 1 }));
    expect(mine.id).toBe("dht22");
    expect(mine.pros[0]).toBe("in your drawer");
  });
  it("outdoors, cheap and exact change the order, and say why", () => {
    expect(first("temperature", empty(), { outdoors: true }).id).toBe("ds18b20");
    expect(first("light-level", empty(), { cheap: true }).price).toBe(1);
    expect(first("air-quality", empty(), { exact: true }).id).toBe("scd41");
    expect(first("air-quality", empty(), { cheap: true }).id).not.toBe("scd41");
    const inside = offersFor(["temperature"], empty(), catalogue, { outdoors: true })[0]!.ways.find(
      (w) => w.id !== "ds18b20",
    )!;
    expect(inside.cons.join()).toContain("dry box");
  });
  it("by the board's voltage, where there is one", () => {
    const on = (board: string) => applyEdit(empty(), { type: "addPart", part: board, ref: "B1" }, catalogue);
    expect(first("record", on("board/rp2040-forty")).id).toBe("sd-3v3");
    expect(first("record", on("board/atmega328p-long")).id).toBe("sd-shifted");
  });
  it("never more than three, and every one with reasons", () => {
    for (const o of offersFor(
      THINGS.map((t) => t.id),
      empty(),
      catalogue,
    )) {
      expect(o.ways.length, o.thing).toBeLessThanOrEqual(3);
      for (const w of o.ways) expect(w.pros.length, `${o.thing} ${w.id}`).toBeGreaterThan(0);
    }
  });
});

describe("boards to begin with", () => {
  it("with a radio where a page is wanted, with soldered pins where nobody solders, the drawer's first", () => {
    expect(boardsFor(["temperature"], empty(), catalogue)[0]!.part).toBe("board/rp2040-forty");
    for (const b of boardsFor(["wifi"], empty(), catalogue))
      expect(catalogue.get(b.part)!.board!.radio).toContain("wifi");
    expect(boardsFor(["text"], empty(), catalogue, { noIron: true })[0]!.part).toBe("board/atmega328p-long");
    expect(boardsFor(["text"], owning({ "board/samd21-compact": 1 }), catalogue)[0]!.part).toBe("board/samd21-compact");
  });
});

describe("what is joined to a project", () => {
  const demo = () => {
    const r = readProject(
      fs.readFileSync(new URL("../../../demo/moss-terrarium.lattice.json", import.meta.url), "utf8"),
      catalogue,
    );
    if (!r.ok) throw new Error("the demo can't be read");
    return r.project;
  };
  it("leaves what was wrong before to the person, keeps their words, and its own where there are none", () => {
    const before = demo();
    const had = check(before)
      .filter((f) => f.severity === "fault")
      .map((f) => f.rule);
    expect(had).toEqual(["level.low-high"]);
    const b = buildIdea(before, catalogue, { choices: [{ thing: "beep", way: "active" }], goal: "and beep" });
    expect(
      check(b.project)
        .filter((f) => f.severity === "fault")
        .map((f) => f.rule),
    ).toEqual(had);
    expect(b.did.join()).not.toMatch(/74AHCT125/);
    expect(b.project.brief.goal).toBe(before.brief.goal);
    expect(buildIdea(empty(), catalogue, { choices: [], goal: " beep " }).project.brief.goal).toBe("beep");
  });
});

/** Every phrasing that means something: by turns here, all of them in the whole set. */
const SOME = PHRASINGS.filter(([, means], i) => means && (process.env.ALL || i % 4 === 1));

describe("a project comes of it, planned and checked", () => {
  it.each(SOME)("%s", (text) => {
    const { wishes, hints } = readIdea(text);
    const things = wishes.map((w) => w.thing);
    const offers = offersFor(things, empty(), catalogue, hints);
    const choices = offers.map((o) => ({ thing: o.thing, way: o.ways[0]!.id }));
    const b = buildIdea(empty(), catalogue, { choices, hints });
    expect(b.clash).toBeNull();
    const bad = check(b.project).filter((f) => f.severity === "stop" || f.severity === "fault");
    // A player takes 0.6 A between 3.2 and 5.0 V: no board and no adapter gives that by itself, and the verdict says so.
    if (things.includes("speech")) expect(b.verdict).not.toBe("Ready to wire");
    else expect(bad).toEqual([]);
    for (const o of offers)
      for (const p of o.ways[0]!.parts)
        expect(
          b.project.parts.some((x) => x.part === p.part),
          p.part,
        ).toBe(true);
  });
});
