import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { applyEdit, type Project } from "../../project";
import { BOARD3, catalogue, planned, USB } from "../../testing";
import { toolsFor } from "../lists";
import { bothUnits, panelDrawing, panelOf } from ".";
import { drillList, drillTools } from "./drill";

const base = planned([
  BOARD3,
  USB,
  { ref: "M1", part: "module/ssd1306-i2c", label: "Display" },
  { ref: "M2", part: "module/hc-sr04", label: "Echo" },
  { ref: "D1", part: "discrete/led-red", label: "Alive" },
  { ref: "SW1", part: "discrete/toggle", label: "Power" },
]);
const boxed = (w_mm: number, h_mm: number, d_mm: number): Project =>
  applyEdit(base, { type: "setBox", box: { w_mm, h_mm, d_mm } }, catalogue);
const panel = (p: Project) => panelOf(circuitOf(p, catalogue))!;

describe("the front of the box", () => {
  it("is none without a box, and is taken out again", () => {
    expect(panelOf(circuitOf(base, catalogue))).toBeNull();
    expect(applyEdit(boxed(100, 60, 40), { type: "setBox", box: null }, catalogue).box).toBeUndefined();
  });
  it("holds what goes through it, displays first, apart and inside", () => {
    const p = panel(boxed(130, 80, 40));
    expect(p.parts.map((x) => x.ref)).toEqual(["M1", "M2", "D1", "SW1"]);
    expect(p.trouble).toEqual([]);
  });
  it("says what does not fit, with sizes", () => {
    const shallow = panel(boxed(130, 80, 30));
    // A toggle is 25 mm deep, and 8 mm are for nuts and wires.
    expect(shallow.trouble).toEqual(["Power is 25 mm deep, 33 mm with its wires: the box has 30 mm inside."]);
    expect(panel(boxed(60, 40, 40)).trouble.some((t) => t.includes("over the edge"))).toBe(true);
  });
  it("keeps what was placed by hand, and says when two are in each other's way", () => {
    let p = boxed(130, 80, 40);
    p = applyEdit(p, { type: "moveOnPanel", ref: "D1", at: { x: 100, y: 60 } }, catalogue);
    expect(panel(p).parts.find((x) => x.ref === "D1")).toMatchObject({ x: 100, y: 60, byHand: true });
    p = applyEdit(p, { type: "moveOnPanel", ref: "SW1", at: { x: 104, y: 60 } }, catalogue);
    expect(panel(p).trouble).toEqual(["Alive and Power are in each other's way."]);
    p = applyEdit(p, { type: "moveOnPanel", ref: "SW1", at: null }, catalogue);
    expect(panel(p).trouble).toEqual([]);
    // Another size of the box keeps the places.
    expect(applyEdit(p, { type: "setBox", box: { w_mm: 140, h_mm: 80, d_mm: 40 } }, catalogue).box!.at.D1).toEqual({
      x: 100,
      y: 60,
    });
  });
});

describe("the drill template", () => {
  const p = panel(applyEdit(boxed(130, 80, 40), { type: "moveOnPanel", ref: "M2", at: { x: 60, y: 50 } }, catalogue));
  const d = panelDrawing(p);
  it("is in millimetres, with centre marks and sizes in both measures", () => {
    expect(d.unit_mm).toBe(1);
    const rounds = d.shapes.filter((s) => s.kind === "circle");
    // Two transducers, one light, one bush.
    expect(rounds.map((s) => s.r * 2).sort((a, b) => a - b)).toEqual([5.1, 6.4, 16.5, 16.5]);
    expect(rounds.filter((s) => s.r === 8.25).map((s) => [s.x, s.y])).toEqual([
      [47, 50],
      [73, 50],
    ]);
    const marks = d.shapes.filter((s) => s.kind === "path");
    expect(marks).toHaveLength(5);
    const words = d.shapes.flatMap((s) => (s.kind === "text" ? [s.text] : []));
    expect(words).toContain("5.1 mm (0.201 in)");
    expect(words).toContain("23 mm (0.906 in) × 12 mm (0.472 in)");
  });
  it("converts by 25.4", () => {
    expect(bothUnits(25.4)).toBe("25.4 mm (1.000 in)");
  });
});

describe("cut-outs of the catalogue", () => {
  it("lie inside the room that their part takes, and tell to measure", () => {
    const with_ = catalogue.parts.filter((p) => p.body.panel);
    expect(with_.length).toBeGreaterThan(15);
    for (const { id, body } of with_) {
      const { holes, room_mm, says } = body.panel!;
      for (const h of holes) {
        const [w, hgt] = "d_mm" in h ? [h.d_mm, h.d_mm] : [h.w_mm, h.h_mm];
        expect(Math.abs(h.x) + w / 2, id).toBeLessThanOrEqual(room_mm[0] / 2 + 0.01);
        expect(Math.abs(h.y) + hgt / 2, id).toBeLessThanOrEqual(room_mm[1] / 2 + 0.01);
      }
      expect(says, id).toMatch(/measure|holder/);
    }
  });
});

describe("drilling", () => {
  const rows = drillList(panel(boxed(130, 80, 40)));
  it("has every hole of the template once, small round ones first, windows last", () => {
    const p = panel(boxed(130, 80, 40));
    expect(rows).toHaveLength(p.parts.reduce((n, x) => n + x.cutout.holes.length, 0));
    const shapes = rows.map((r) => r.shape);
    expect(shapes.lastIndexOf("round")).toBeLessThan(shapes.indexOf("window"));
    const sizes = rows.filter((r) => r.shape === "round").map((r) => r.mm[0]);
    expect(sizes).toEqual([...sizes].sort((a, b) => a - b));
    const led = p.parts.find((x) => x.ref === "D1")!;
    const [hole] = led.cutout.holes;
    expect(rows.find((r) => r.ref === "D1")).toMatchObject({
      x_mm: Math.round((led.x + hole!.x) * 10) / 10,
      y_mm: Math.round((led.y + hole!.y) * 10) / 10,
    });
  });
  it("says how: through 3 mm to size, large ones by steps, windows by saw and file", () => {
    expect(rows.find((r) => r.ref === "D1")!.how).toMatch(/^punch, 3 mm first, then 5\.1 mm$/);
    expect(rows.find((r) => r.ref === "M2")!.how).toContain("step drill up to 16.5 mm");
    expect(rows.find((r) => r.ref === "M1")!.how).toMatch(/saw between them, file to \d+(\.\d)? × \d+(\.\d)? mm/);
  });
  it("brings its tools only where there is a box with holes", () => {
    const names = (q: Project) => toolsFor(circuitOf(q, catalogue)).map((t) => t.name);
    expect(names(boxed(130, 80, 40)).join()).toContain("Centre punch");
    expect(names(boxed(130, 80, 40)).join()).toContain("Step drill up to 16.5 mm");
    expect(names(base).join()).not.toMatch(/punch|drill/);
    expect(drillTools([])).toEqual([]);
  });
});
