import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { BOARD3, BOARD5, catalogue, make, planned, rules, USB } from "../../testing";
import { cellOf, latticeView, moveNeed, waysToServe } from ".";
import { findPin } from "../../parts/catalogue";

const PARTS = [
  USB,
  { ref: "M1", part: "module/bme280" },
  { ref: "M2", part: "module/ssd1306-i2c" },
  { ref: "M3", part: "module/hc-sr04", label: "Echo" },
  { ref: "D1", part: "discrete/led-red", label: "Lamp" },
];
const five = () => planned([BOARD5, USB, ...PARTS.slice(2)]);
const three = () => planned([BOARD3, ...PARTS]);

describe("the lattice", () => {
  const view = latticeView(circuitOf(five(), catalogue), "B1");
  const cell = (id: string, pin: string) =>
    cellOf(
      view,
      view.rows.find((r) => r.id === id)!,
      view.columns.findIndex((c) => c.pin === pin),
    );
  it("has the headers' pins in printed order and a cell for every crossing", () => {
    expect(view.columns.slice(0, 4).map((c) => c.pin)).toEqual(["NC", "IOREF", "RST", "3V3"]);
    expect(
      view.columns
        .filter((c) => c.header === "R")
        .map((c) => c.pin)
        .slice(4, 7),
    ).toEqual(["D13", "D12", "D11"]);
    for (const r of view.rows) {
      expect(r.states).toHaveLength(view.columns.length);
      expect(r.why).toHaveLength(view.columns.length);
    }
  });
  it("judges each crossing as the solver would", () => {
    const board = catalogue.get("board/atmega328p-long")!;
    for (const r of view.rows)
      view.columns.forEach((c, i) => {
        const need = catalogue
          .get(r.ref === "D1" ? "discrete/led-red" : r.ref === "M3" ? "module/hc-sr04" : "module/ssd1306-i2c")!
          .pins.find((p) => p.label === r.pin)!.need!;
        const able = waysToServe(findPin(board, c.pin)!, need).some((w) => w.ok);
        expect(cellOf(view, r, i).state === "cannot", `${r.id} ${c.pin}`).toBe(!able);
      });
  });
  it("says the states in words, with the reason", () => {
    expect(cell("M2.SDA", "A4")).toEqual({ state: "chosen", why: "A4 is the usual I2C SDA pin of i2c0" });
    expect(cell("M2.SDA", "D2").why).toContain("D2 is no I2C SDA pin on this board");
    expect(cell("D1.A", "D1").state).toBe("caution");
    expect(cell("D1.A", "D1").why).toContain("USB serial console");
    expect(cell("D1.A", "A4")).toMatchObject({ state: "taken", why: expect.stringContaining("M2.SDA is there") });
    expect(cell("D1.A", "GND").state).toBe("cannot");
  });
  it("counts what is left by capability", () => {
    const spare = new Map(view.spare.map((s) => [s.can, s.pins]));
    expect(spare.get("adc")).toEqual(["A0", "A1", "A2", "A3"]);
    expect(spare.get("i2c")).toEqual([]);
    expect(spare.get("interrupt")).toEqual(["D3"]);
  });
});

describe("moving a need", () => {
  it("takes the other line of its bus and the parts that share it along", () => {
    const m = moveNeed(three(), catalogue, "M1.SDA", "GP2");
    if (!m.ok) throw new Error(m.why);
    const at = new Map(circuitOf(m.project, catalogue).netlist.bindings.map((b) => [`${b.ref}.${b.pin}`, b.hostPin]));
    expect(at.get("M1.SDA")).toBe("GP2");
    expect(
      circuitOf(m.project, catalogue)
        .netlist.bindings.filter((b) => b.ref === "M1")
        .map((b) => b.hostPin),
    ).toContain(at.get("M1.SCL"));
    expect(rules(m.project, "fault").filter((r) => r.includes("pin."))).toEqual([]);
    expect(m.moved.map((x) => x.need)).toEqual(expect.arrayContaining(["M1.SDA", "M1.SCL"]));
  });
  it("gives the pin's old user another place, and leaves everybody else alone", () => {
    const p = five();
    const before = new Map(circuitOf(p, catalogue).netlist.bindings.map((b) => [`${b.ref}.${b.pin}`, b.hostPin]));
    const m = moveNeed(p, catalogue, "D1.A", before.get("M3.TRIG")!);
    if (!m.ok) throw new Error(m.why);
    const after = new Map(
      circuitOf(m.project, catalogue).netlist.bindings.map((b) => [`${b.ref}.${b.pin}`, b.hostPin]),
    );
    expect(after.get("D1.A")).toBe(before.get("M3.TRIG"));
    expect(after.get("M3.TRIG")).not.toBe(before.get("M3.TRIG"));
    for (const k of ["M2.SDA", "M2.SCL", "M3.ECHO"]) expect(after.get(k)).toBe(before.get(k));
    expect(new Set(after.values()).size).toBe(after.size);
  });
  it("refuses what can't be, in words, and changes nothing", () => {
    const p = five();
    const text = JSON.stringify(p);
    const m = moveNeed(p, catalogue, "M2.SDA", "D7");
    expect(m).toMatchObject({ ok: false, why: expect.stringContaining("can't serve as I2C SDA") });
    expect(moveNeed(p, catalogue, "M9.SDA", "D7").ok).toBe(false);
    expect(JSON.stringify(p)).toBe(text);
  });
  it("keeps locks as they were, and plans an open need where it is put", () => {
    const p = make(
      [BOARD5, USB, { ref: "D1", part: "discrete/led-red" }, { ref: "D2", part: "discrete/led-red" }],
      [],
      {
        links: [{ from: "D1.A", to: "B1.D7", locked: true }],
      },
    );
    const m = moveNeed(p, catalogue, "D2.A", "D9");
    if (!m.ok) throw new Error(m.why);
    expect(m.project.links).toContainEqual({ from: "D1.A", to: "B1.D7", locked: true });
    expect(m.project.links).toContainEqual(expect.objectContaining({ from: "D2.A", to: "B1.D9" }));
  });
});
