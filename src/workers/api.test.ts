import { describe, expect, it } from "vitest";
import { BOARD3, BOARD5, make, planned, USB } from "../core/testing";
import { api } from "./api";

const STRIP = { ref: "M3", part: "module/ws2812b-strip", options: { pixels: 30 } };

describe("what the interface asks", () => {
  it("adding a part brings companions and a plan in one step", () => {
    const s = api.add(planned([BOARD5, USB]), "discrete/led-red", "Lamp");
    expect(s.ref).toBe("D1");
    expect(s.project.parts[2]).toEqual({
      ref: "D1",
      part: "discrete/led-red",
      label: "Lamp",
      companions: { seriesResistor: { ohm: 390 } },
    });
    expect(s.view.verdict.words).toBe("Ready to wire");
    expect(s.view.parts[2]!.companions[0]!.says).toContain("390 Ω");
  });
  it("a part that does not fit is kept, and the clash is told", () => {
    const one = api.add(planned([BOARD5, USB]), "module/ssd1306-i2c", "").project;
    const s = api.add(one, "module/ssd1306-i2c", "");
    expect(s.clash).toContain("both answer to address 0x3c");
    expect(s.project.parts.map((p) => p.ref)).toContain("M2");
    expect(s.project.links).toEqual(one.links);
    expect(s.view.open).toBe(2);
  });
  it("works without a board, and the board then takes everything in", () => {
    const s = api.add(make([USB]), "discrete/button", "");
    expect(s.clash).toBeNull();
    expect(s.view.verdict.words).toBe("Not planned yet: no board chosen");
    const b = api.board(s.project, "board/rp2040-forty");
    expect(b.view.verdict.words).toBe("Ready to wire");
  });
  it("a preview says what an edit would bring, and changes nothing", () => {
    const p = planned([BOARD5, USB, { ref: "S2", part: "supply/adapter-5v-2a" }, STRIP]);
    const text = JSON.stringify(p);
    const v = api.preview(p, { type: "setOption", ref: "M3", key: "pixels", value: 60 });
    expect(v.changes).toEqual(["M3 pixels: 30 → 60"]);
    expect(v.come.join()).toContain("over a limit of 2 A");
    expect(v.verdict).toMatch(/^(Do not power|Will not work)/);
    expect(JSON.stringify(p)).toBe(text);
  });
  it("a ghost tells the consequence of a move before it is made", () => {
    const p = planned([BOARD3, USB, { ref: "D1", part: "discrete/led-red" }]);
    expect(api.ghost(p, "D1.A", "GP9")).toMatchObject({ ok: true, moved: [{ need: "D1.A", to: "GP9" }] });
    expect(api.ghost(p, "D1.A", "GP9").says).toBe("1 wire moves: D1.A → GP9. Then: Ready to wire");
    expect(api.ghost(p, "D1.A", "RUN")).toMatchObject({ ok: false });
    const m = api.move(p, "D1.A", "GP9");
    expect(m.ok && m.step.project.links).toContainEqual({ from: "D1.A", to: "B1.GP9" });
  });
  it("judges readings and writes what it reads", () => {
    const s = api.open(planned([BOARD5, USB]));
    const item = s.view.checks.find((c) => c.what === "5V reads")!;
    expect(api.reading(item, "5,02 V")).toEqual({ ok: true, says: "as it should be" });
    expect(api.reading(item, "4.1").says).toMatch(/outside: expected .* V$/);
    expect(api.reading(item, "warm").says).toContain("not a reading");
    const again = api.read(api.write(s.project));
    expect(again.ok && again.project).toEqual(s.project);
    expect(api.svg(s.project)).toContain("<svg");
    expect(api.files(s.project, "nothing")).toEqual([]);
  });
  it("gives a view that survives the way to the page", () => {
    const s = api.open(planned([BOARD3, USB, STRIP, { ref: "M1", part: "module/bme280" }]));
    expect(structuredClone(s.view)).toEqual(s.view);
    expect(s.view.lattices[0]!.rows).toHaveLength(3);
  });
});
