import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { applyEdit, type Project, type Wall } from "../../project";
import { BOARD3, catalogue, planned, USB } from "../../testing";
import { toolsFor } from "../lists";
import { bothUnits, panelDrawing, panelOf, USB_LEAD, wallSize, wallsOf } from ".";
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

describe("other walls", () => {
  const at = (p: Project, ref: string, to: { x: number; y: number; wall?: Wall }) =>
    applyEdit(p, { type: "moveOnPanel", ref, at: to }, catalogue);
  const withUsb = applyEdit(boxed(130, 80, 60), { type: "setBox", box: { usbLead: true } }, catalogue);

  it("a USB lead goes through the back, and is bought", () => {
    const p = panel(withUsb);
    expect(p.parts.find((x) => x.ref === USB_LEAD)).toMatchObject({ wall: "back", byHand: false });
    expect(wallsOf(p)).toEqual(["front", "back"]);
    expect(
      toolsFor(circuitOf(withUsb, catalogue))
        .map((t) => t.name)
        .join(),
    ).toContain("Short USB lead");
    expect(wallsOf(panel(boxed(130, 80, 60)))).toEqual(["front"]);
  });
  it("it goes through a side where the box is too shallow behind the back", () => {
    const p = panel(applyEdit(boxed(130, 80, 40), { type: "setBox", box: { usbLead: true } }, catalogue));
    expect(p.parts.find((x) => x.ref === USB_LEAD)!.wall).toBe("right");
    expect(p.trouble).toEqual([]);
  });
  it.each<[Wall, number, number, number]>([
    ["front", 130, 80, 60],
    ["back", 130, 80, 60],
    ["left", 60, 80, 130],
    ["right", 60, 80, 130],
    ["top", 130, 60, 80],
    ["bottom", 130, 60, 80],
  ])("%s is %i wide and %i high, with %i behind it", (wall, w, h, deep) => {
    expect(wallSize({ w_mm: 130, h_mm: 80, d_mm: 60 }, wall)).toEqual({ w, h, deep });
    const p = panel(at(withUsb, "SW1", { x: w / 2, y: h / 2, wall }));
    const d = panelDrawing(p, wall);
    expect([d.width, d.height]).toEqual([w + 8, h + 14]);
    expect(d.shapes.some((s) => s.kind === "circle" && s.x === w / 2 && s.y === h / 2)).toBe(true);
    expect(drillList(p).find((r) => r.ref === "SW1")).toMatchObject({ wall, x_mm: w / 2, y_mm: h / 2 });
  });
  it("parts behind two walls must not meet inside, as a hand would find it", () => {
    // A toggle is 25 mm deep, the USB lead 40: in 60 mm they meet back to back, and do not beside each other.
    const meet = (x: number, usbX: number) =>
      panel(at(at(withUsb, "SW1", { x, y: 60, wall: "front" }), USB_LEAD, { x: usbX, y: 60, wall: "back" })).trouble;
    // Seen from behind, 30 from the left is 100 from the left of the front.
    expect(meet(100, 30)).toEqual(["Power behind the front and USB lead behind the back meet inside the box."]);
    expect(meet(30, 30)).toEqual([]);
    // From the right wall, 12 from its left (front) edge, a toggle reaches 25 into what stands at the front's right edge.
    const side = (y: number) =>
      panel(at(at(withUsb, "SW1", { x: 12, y, wall: "right" }), "D1", { x: 120, y: 20, wall: "front" })).trouble;
    expect(side(20).join()).toContain("meet inside the box");
    expect(side(60).join()).not.toContain("meet inside the box");
  });
  it("nothing stands in a rounded corner", () => {
    const round = applyEdit(boxed(170, 110, 60), { type: "setBox", box: { corner_mm: 20 } }, catalogue);
    expect(panel(at(round, "D1", { x: 7, y: 7 })).trouble).toEqual([
      "Alive stands in a rounded corner of the front: 20 mm of radius leave nothing to hold it.",
    ]);
    expect(panel(at(round, "D1", { x: 7, y: 40 })).trouble).toEqual([]);
    expect(panel(at(withUsb, "D1", { x: 7, y: 7 })).trouble).toEqual([]);
    const outline = panelDrawing(panel(round)).shapes[0]!;
    expect(outline.kind === "path" && outline.d).toContain("Q170 0 170 20");
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
    // The outline and a cross for each hole.
    expect(marks).toHaveLength(6);
    const words = d.shapes.flatMap((s) => (s.kind === "text" ? [s.text] : []));
    expect(words).toContain("5.1 mm (0.201 in)");
    expect(words).toContain("23 mm (0.906 in) × 12 mm (0.472 in)");
  });
  it("writes no words on words", () => {
    const texts = d.shapes.flatMap((s) => (s.kind === "text" ? [s] : []));
    const box = (t: (typeof texts)[number]) => {
      const w = t.text.length * t.size * 0.6;
      const x = t.anchor === "middle" ? t.x - w / 2 : t.x;
      return { x1: x, x2: x + w, y1: t.y - 0.7 * t.size, y2: t.y };
    };
    for (const [i, a] of texts.entries())
      for (const b of texts.slice(i + 1)) {
        const [p1, q] = [box(a), box(b)];
        const on = p1.x1 < q.x2 && q.x1 < p1.x2 && p1.y1 < q.y2 && q.y1 < p1.y2;
        expect(on, `${a.text} on ${b.text}`).toBe(false);
      }
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
