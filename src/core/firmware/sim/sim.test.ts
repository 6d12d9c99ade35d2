import { describe, expect, it } from "vitest";
import { stageOf } from "../../bench/stage";
import { circuitOf } from "../../circuit";
import { assign } from "../../plan/assign";
import type { Rule } from "../../project";
import { BOARD3, catalogue, make, USB } from "../../testing";
import { programOf } from ".";
import { fixed } from "./show";

const planned = (parts: object[], rules?: Rule[]) => {
  const a = assign(make([BOARD3, USB, ...(parts as never[])]), catalogue);
  return circuitOf({ ...a.project, ...(rules && { rules }) }, catalogue);
};
function run(parts: object[], rules?: Rule[]) {
  const c = planned(parts, rules);
  const stage = stageOf(c, "B1", "micropython");
  const p = programOf(c, "B1", "micropython", stage);
  return { p, stage, last: () => p.said.at(-1)!.line };
}
const GO = { ref: "SW1", part: "discrete/button", label: "Go" };

describe("the starter, interpreted", () => {
  it("says once a second what its parts say, and what was pressed at once", () => {
    const { p, stage } = run([GO, { ref: "M1", part: "module/aht20", label: "Air" }]);
    p.run(1200);
    expect(stage.press("SW1", true)).toBeNull();
    p.run(3999);
    expect(p.said[0]!.line).toMatch(/^YL1 plan B1 id=\w+ info$/);
    expect(p.said.map((s) => s.line).slice(1)).toEqual([
      "Air --  running 0 s",
      expect.stringMatching(/^[\d.]+ C \d+ %  running 1 s$/),
      "Go pressed",
      expect.stringMatching(/^Go pressed {2}[\d.]+ C \d+ % {2}running 2 s$/),
      expect.stringMatching(/^Go pressed .*running 3 s$/),
    ]);
    expect(p.said[3]!.at).toBeGreaterThanOrEqual(1220);
    expect(p.said[3]!.at).toBeLessThanOrEqual(1230);
  });
  it("a contact that is down for less than it takes to settle was not pressed", () => {
    const { p, stage } = run([GO]);
    p.run(1000);
    stage.press("SW1", true);
    p.run(1010);
    stage.press("SW1", false);
    p.run(2000);
    expect(p.said.filter((s) => s.line === "Go pressed")).toEqual([]);
  });
  it("a sensor that feels something else says so, with all that it was told before", () => {
    const { p, stage, last } = run([{ ref: "M1", part: "module/bme280", label: "Air" }]);
    p.run(3500);
    expect(last()).toContain("25.1 C");
    expect(stage.set("M1", "t_C", 3.1, 3500)).toBeNull();
    p.run(6000);
    expect(last()).toContain("3.1 C");
    expect(stage.set("M1", "colour", 1, 6000)).toBe('M1 does not feel "colour"; it feels t_C, p_hPa, rh');
    expect(stage.set("M9", "t_C", 1, 6000)).toBe("M9 feels nothing that can be set");
    expect(stage.set("M1", "t_C", NaN, 6000)).toMatch(/number/);
    expect(stage.press("M1", true)).toMatch(/no contact/);
  });
  it("what hangs on an expander is worked by its bits", () => {
    const lamp = { ref: "D1", part: "discrete/led-red", label: "Lamp" };
    const parts = [{ ref: "M1", part: "module/pcf8574", label: "More" }, lamp, GO];
    const links = [
      { from: "D1.A", to: "M1.P6", locked: true },
      { from: "SW1.1", to: "M1.P1", locked: true },
    ];
    const rules: Rule[] = [{ when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "D1", act: "on" } }];
    const plan = assign(make([BOARD3, USB, ...parts], [], { links }), catalogue).project;
    const c = circuitOf({ ...plan, rules }, catalogue);
    const stage = stageOf(c, "B1", "micropython");
    const p = programOf(c, "B1", "micropython", stage);
    expect(stage.set("M1", "bits", 0xff, 0)).toBeNull();
    p.run(3000);
    expect(stage.seen("M1", 3000).is!.out).toBe(0);
    // The contact to ground pulls its line low.
    stage.set("M1", "bits", 0xfd, 3000);
    p.run(5000);
    expect(p.said.map((l) => l.line)).toContain("Go pressed");
    expect(stage.seen("D1", 5000).pins.get("A")).toBe(1);
    expect(stage.seen("M1", 5000).is!.out).toBe(64);
  });
  it("a display shows what the others say, page after page", () => {
    const sensors = ["aht20", "sht31", "adxl345"].map((m, i) => ({ ref: `M${i + 1}`, part: `module/${m}`, label: m }));
    const { p } = run([...sensors, { ref: "M9", part: "module/lcd1602-i2c", label: "Text" }], []);
    const rows = () => p.parts.get("M9")!.machine!.rows();
    p.run(3000);
    const first = rows();
    expect(first[0]).toMatch(/ C \d+ %/);
    p.run(5000);
    expect(rows()).not.toEqual(first);
    expect(rows()[1]!.trim()).toBe("");
    p.run(9000);
    expect(rows()).toEqual(first);
  });
  it("a small display keeps its rows for what there is to read; a contact has one where nothing else is", () => {
    const text = { ref: "M9", part: "module/lcd1602-i2c", label: "Text" };
    const rows = (parts: object[]) => {
      const { p, stage } = run([...parts, text], []);
      p.run(2000);
      stage.press("SW1", true);
      p.run(3000);
      return p.parts
        .get("M9")!
        .machine!.rows()
        .map((r) => r.trim());
    };
    expect(rows([GO, { ref: "M1", part: "module/bh1750" }, { ref: "M2", part: "module/aht20" }])[0]).toMatch(/lx$/);
    expect(rows([GO, { ref: "M1", part: "module/bh1750" }])).toEqual([expect.stringMatching(/lx$/), "Go pressed"]);
    expect(rows([GO])[0]).toBe("Go pressed");
  });
  it("numbers are written as the other targets write them", () => {
    const list: [number, number, number, string][] = [
      [2508, 2, 1, "25.1"],
      [-5, 1, 1, "-0.5"],
      [-4, 2, 1, "0.0"],
      [-5, 2, 1, "-0.1"],
      [7, 0, 0, "7"],
      [1995, 2, 0, "20"],
      [3, 3, 3, "0.003"],
    ];
    for (const [v, digits, shown, text] of list) expect(fixed(v, digits, shown)).toBe(text);
  });
});

describe("plain C, interpreted", () => {
  const chip = (id: string, parts: object[], rules?: Rule[], more: object = {}) => {
    const a = assign(make([{ ref: "B1", part: id }, USB, ...(parts as never[])]), catalogue);
    const c = circuitOf({ ...a.project, ...(rules && { rules }), ...more }, catalogue);
    const stage = stageOf(c, "B1", "avr-c");
    return { p: programOf(c, "B1", "avr-c", stage), stage };
  };
  const LAMP = { ref: "LED1", part: "discrete/led-red", label: "Lamp" };
  it("a chip of a kilobyte says nothing, and lights its lamp in the dark", () => {
    const { p, stage } = chip("chip/attiny13a-dip8", [LAMP, { ref: "R1", part: "discrete/ldr", label: "Dusk" }]);
    const lit = (pct: number, until: number) => {
      expect(stage.set("R1", "pct", pct, until)).toBeNull();
      p.run(until);
      return stage.seen("LED1", until).pins.get("A");
    };
    const [dark, bright] = [lit(0, 100), lit(100, 200)];
    expect(dark).not.toBe(bright);
    // In the middle it stays as it was.
    expect(lit(50, 300)).toBe(bright);
    expect(lit(0, 400)).toBe(dark);
    expect(lit(50, 500)).toBe(dark);
    expect(p.said).toEqual([]);
  });
  it("says readings once a second, and a missing part in dashes", () => {
    const { p } = chip("chip/atmega328p-dip28", [{ ref: "M1", part: "module/aht20", label: "Air" }]);
    p.run(3000);
    expect(p.said[0]!.line).toMatch(/^YL1 plan B1 id=\w+ info$/);
    expect(p.said.at(-1)!.line).toMatch(/^running 3 s M1=[\d.]+ C \d+ %$/);
  });
  it("own rules count, and what the chip can't work is left", () => {
    const { p, stage } = chip(
      "chip/attiny85-dip8",
      [LAMP, { ref: "SW1", part: "discrete/button", label: "Go" }],
      [{ when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "LED1", act: "for", for_s: 0.5 } }],
    );
    p.run(500);
    stage.press("SW1", true);
    p.run(600);
    stage.press("SW1", false);
    p.run(700);
    expect(stage.seen("LED1", 700).pins.get("A")).toBe(1);
    p.run(1200);
    expect(stage.seen("LED1", 1200).pins.get("A")).toBe(0);
    expect(p.left).toEqual([]);
  });
});
