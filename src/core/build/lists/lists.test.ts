import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { applyEdit, readProject, type Project } from "../../project";
import { BOARD3, BOARD5, catalogue, planned, USB } from "../../testing";
import {
  kitPart,
  kitWire,
  labelSheets,
  labelsFor,
  partsList,
  propose,
  rewire,
  runSheet,
  toolsFor,
  wireSums,
  wireTable,
} from "..";
import { sparesFor } from "./spares";
import { substitutes } from "./substitutes";

const demo = (name: string): Project => {
  const url = new URL(`../../../../demo/${name}.lattice.json`, import.meta.url);
  const r = readProject(fs.readFileSync(url, "utf8"), catalogue);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return r.project;
};
const hive = demo("beehive-scale");

describe("spares", () => {
  it("are a share of the kind, rounded up, and the teacher's share when one is given", () => {
    expect(sparesFor("loose", 1, undefined)).toBe(1);
    expect(sparesFor("loose", 10, undefined)).toBe(2);
    expect(sparesFor("modules", 10, undefined)).toBe(0);
    const kit = { benches: 12, spares_percent: { loose: 50, modules: 10 } };
    expect(sparesFor("loose", 4, kit)).toBe(2);
    expect(sparesFor("modules", 12, kit)).toBe(2);
    expect(sparesFor("modules", 0, kit)).toBe(0);
    expect(sparesFor(null, 5, kit)).toBe(0);
  });
  it("for many benches are a share of all of them, and what is owned counts once", () => {
    const kit = { benches: 12, spares_percent: { modules: 25 } };
    const list = partsList(circuitOf(applyEdit(hive, { type: "setKit", kit }, catalogue), catalogue));
    const row = (id: string) =>
      kitPart(
        list.find((b) => b.part === id)!,
        kit,
      );
    expect(row("module/ds3231")).toEqual({ together: 12, spares: 3, buy: 15 });
    // 24 in all and a quarter of them.
    expect(row("module/ds18b20")).toEqual({ together: 24, spares: 6, buy: 30 });
    // One amplifier is in the drawer; 470 ohm and 4.7 kilohm are values of the box.
    expect(row("module/hx711")).toEqual({ together: 12, spares: 3, buy: 14 });
    expect(row("discrete/resistor").buy).toBe(0);
    const wire = wireTable(circuitOf({ ...hive, kit }, catalogue))[0]!;
    expect(kitWire(wire, kit)).toEqual({
      together: wire.quantity * 12,
      spares: Math.ceil(wire.quantity * 12 * 0.2),
      buy: wire.quantity * 12 + Math.ceil(wire.quantity * 12 * 0.2),
    });
  });
  it("come out in the list", () => {
    const p = applyEdit(hive, { type: "setKit", kit: { benches: 1, spares_percent: { modules: 100 } } }, catalogue);
    const row = partsList(circuitOf(p, catalogue)).find((b) => b.part === "module/ds3231")!;
    expect([row.quantity, row.spares, row.buy]).toEqual([1, 1, 2]);
  });
});

describe("substitutes", () => {
  const part = (id: string, vars = {}) => ({ part: catalogue.get(id)!, vars });
  it("offers the nearest resistor of the drawer, and none that is too far off", () => {
    const c = circuitOf(
      { ...hive, drawer: { parts: {}, resistors_ohm: [220, 390, 560], capacitors_F: [] } },
      catalogue,
    );
    expect(substitutes(c, part("discrete/resistor", { resistance_ohm: 470 }))).toEqual([
      "390 Ω from the drawer: put it in at the part and read the findings again",
    ]);
    expect(substitutes(c, part("discrete/resistor", { resistance_ohm: 4700 }))).toEqual([]);
  });
  it("says what differs", () => {
    const c = circuitOf(hive, catalogue);
    expect(substitutes(c, part("discrete/npn-bc547"))[0]).toContain("E, B, C");
    expect(substitutes(c, part("module/servo-small"))).toEqual([]);
  });
});

describe("wires by colour, length and ends", () => {
  it("counts every wire of the run sheet once", () => {
    const c = circuitOf(hive, catalogue);
    const rows = wireTable(c);
    const wires = runSheet(c).filter((r) => r.kind === "wire");
    expect(rows.reduce((s, r) => s + r.quantity, 0)).toBe(wires.length);
    expect(wireSums(rows).reduce((s, r) => s + r.total_cm, 0)).toBe(wires.reduce((s, r) => s + r.length_cm, 0));
    expect(rows.find((r) => r.colour === "blue")).toMatchObject({ kind: "jumper wire" });
  });
  it("tells kinds apart: jumpers, cut wire on a breadboard, strong wire", () => {
    const l = propose(circuitOf(hive, catalogue));
    const placed = circuitOf({ ...hive, breadboard: { boards: l.sizes, at: l.spots } }, catalogue);
    const kinds = new Set(wireTable(placed).map((r) => r.kind));
    expect(kinds).toContain("solid, cut");
    expect(kinds).toContain("jumper wire");
    const strip = { ref: "M3", part: "module/ws2812b-strip", options: { pixels: 60 } };
    const strong = circuitOf(planned([BOARD3, USB, { ref: "S2", part: "supply/adapter-5v-10a" }, strip]), catalogue);
    expect(wireTable(strong).some((r) => /^\d+ AWG, cut/.test(r.kind))).toBe(true);
  });
});

describe("tools", () => {
  it("say to borrow the iron that is not there", () => {
    const iron = (has: boolean) =>
      toolsFor(circuitOf({ ...hive, brief: { ...hive.brief, iron: has } }, catalogue)).find((t) => /iron/.test(t.name))!
        .why;
    expect(iron(true)).toMatch(/parts are soldered before wiring$/);
    expect(iron(false)).toMatch(/none is at hand, so borrow one/);
  });
  const names = (p: Project) => toolsFor(circuitOf(p, catalogue)).map((t) => t.name.split(/[:,]/)[0]);
  it("are those that this plan needs", () => {
    expect(names(hive)).toContain("Soldering iron with a stand");
    expect(names(hive)).toContain("Charger for the lithium cell");
    expect(names(hive)).not.toContain("USB data cable");
    const bare = planned([BOARD5, USB, { ref: "M1", part: "module/hc-sr04" }]);
    expect(names(bare)).toEqual(["Multimeter with beep", "Breadboard", "USB data cable"]);
    expect(toolsFor(circuitOf(planned([]), catalogue))).toEqual([]);
  });
  it("soldered at once need no breadboard", () => {
    const list = names({ ...hive, houseRules: { ...hive.houseRules, firstBuild: "solder" } });
    expect(list).not.toContain("Breadboard");
    expect(list).toContain("Perfboard");
  });
  it("count pins to solder and name splices", () => {
    const list = toolsFor(circuitOf({ ...hive, houseRules: { ...hive.houseRules, sharing: "splice" } }, catalogue));
    expect(list.find((t) => t.name.startsWith("Splice"))!.name).toContain("GND splice");
    // 40 of the board, 10, 6 and 6 of the modules.
    expect(list.find((t) => t.name.startsWith("Pin headers"))!.name).toContain("62 pins");
  });
});

describe("labels", () => {
  const labels = labelsFor(circuitOf(hive, catalogue));
  it("has two for each wire, one for each module, and the names of what is pressed and seen", () => {
    const wires = runSheet(circuitOf(hive, catalogue)).filter((r) => r.kind === "wire");
    expect(labels.filter((l) => l.kind === "wire")).toHaveLength(2 * wires.length);
    expect(labels.filter((l) => l.kind === "control").map((l) => l.text)).toEqual(["Tare", "Alive"]);
    expect(labels.find((l) => l.text === "Clock")).toMatchObject({ kind: "part" });
  });
  it("fills sheets without one tag on another, and nothing outside", () => {
    const pages = labelSheets(labels, 190, 277);
    expect(pages.length).toBeGreaterThan(0);
    for (const page of pages) {
      const tags = page.shapes.filter((s) => s.kind === "rect");
      for (const [i, a] of tags.entries()) {
        expect(a.x + a.w).toBeLessThanOrEqual(190);
        expect(a.y + a.h).toBeLessThanOrEqual(277);
        for (const b of tags.slice(i + 1))
          expect(a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y).toBe(true);
      }
    }
    expect(pages.flatMap((p) => p.shapes.filter((s) => s.kind === "rect"))).toHaveLength(labels.length);
  });
  it("cuts what is too long", () => {
    const long = labelSheets([{ kind: "control", text: "x".repeat(60), small: "SW1" }], 190, 277);
    const text = long[0]!.shapes.find((s) => s.kind === "text")!;
    expect(text.kind === "text" && text.text.length).toBeLessThan(16);
  });
});

describe("two plans compared", () => {
  const before = circuitOf(hive, catalogue);
  it("nothing changed, nothing to do", () => {
    expect(rewire(before, circuitOf({ ...hive }, catalogue))).toMatchObject({
      takeOff: [],
      lay: [],
      partsOff: [],
      partsOn: [],
      partsMoved: [],
    });
  });
  it("one pin moved is one wire off and one on", () => {
    const link = hive.links.find((l) => [l.from, l.to].includes("SW1.1"))!;
    const other = link.from === "SW1.1" ? link.to : link.from;
    const moved = applyEdit(hive, { type: "moveLink", end: "SW1.1", from: other, to: "B1.GP14" }, catalogue);
    const r = rewire(before, circuitOf(moved, catalogue));
    expect(r.takeOff.map((x) => [x.from, x.to].sort())).toEqual([[other, "SW1.1"].sort()]);
    expect(r.lay.map((x) => [x.from, x.to].sort())).toEqual([["B1.GP14", "SW1.1"]]);
    expect(r.same).toBe(runSheet(before).filter((x) => x.kind === "wire" || x.kind === "leg").length - 1);
  });
  it("a part taken out takes its wires along, supplies first", () => {
    const r = rewire(before, circuitOf(applyEdit(hive, { type: "removePart", ref: "M4" }, catalogue), catalogue));
    expect(r.partsOff.map((p) => p.ref)).toEqual(["M4"]);
    expect(r.takeOff).toHaveLength(4);
    expect(r.lay).toEqual([]);
    expect(r.takeOff[0]!.step).toBeGreaterThan(r.takeOff.at(-1)!.step);
  });
  it("a part moved on the breadboard is said, with its wires", () => {
    const l = propose(before);
    const placed = { ...hive, breadboard: { boards: l.sizes, at: l.spots } };
    const spot = { ...l.spots.D1!, row: 50 };
    const moved = applyEdit(placed, { type: "moveOnBoard", ref: "D1", spot }, catalogue);
    const r = rewire(circuitOf(placed, catalogue), circuitOf(moved, catalogue));
    expect(r.partsMoved.map((p) => p.ref)).toEqual(["D1"]);
    expect(r.partsMoved[0]!.to).toMatch(/^A in [a-j]\d+, K in [a-j]\d+$/);
    expect(r.lay.length).toBeGreaterThan(0);
  });
  it("another value or setting is said, and where a new part stands", () => {
    const p = planned([BOARD5, USB, { ref: "LED1", part: "discrete/led-red" }]);
    const dim = applyEdit(
      p,
      { type: "setCompanion", ref: "LED1", key: "seriesResistor", value: { ohm: 1000 } },
      catalogue,
    );
    const r = rewire(circuitOf(p, catalogue), circuitOf(dim, catalogue));
    expect(r.changed).toMatchObject([{ what: "value", to: "1 kΩ" }]);
    expect([r.takeOff.length, r.lay.length]).toEqual([0, 0]);
    const l = propose(before);
    const placed = { ...hive, breadboard: { boards: l.sizes, at: l.spots } };
    const less = applyEdit(placed, { type: "removePart", ref: "D1" }, catalogue);
    const back = rewire(circuitOf(less, catalogue), circuitOf(placed, catalogue));
    expect(back.partsOn.find((x) => x.ref === "D1")!.to).toMatch(/^A in [a-j]\d+, K in [a-j]\d+$/);
    for (const w of back.lay) expect(w.step).toBeGreaterThan(0);
  });
});
