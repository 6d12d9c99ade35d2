import { describe, expect, it } from "vitest";
import { rankBoards } from "../plan/advice";
import { assign } from "../plan/assign";
import { circuitOf } from "../circuit";
import { BOARD3, BOARD5, catalogue, make, USB } from "../testing";
import { partsList } from "../build";
import { applyEdit, writeProject, loadProject } from ".";

const LED = { ref: "D1", part: "discrete/led-red" };
const withDrawer = (drawer: object) => make([BOARD5, USB, LED], [], { drawer });
const resistor = (drawer: object) =>
  assign(withDrawer(drawer), catalogue).project.parts.find((p) => p.ref === "D1")!.companions!.seriesResistor;

describe("plans prefer what is in the drawer", () => {
  it("the next owned value up, when it is near enough; else the series", () => {
    expect(resistor({})).toEqual({ ohm: 390 });
    expect(resistor({ resistors_ohm: [220, 470, 10_000] })).toEqual({ ohm: 470 });
    expect(resistor({ resistors_ohm: [220, 10_000] })).toEqual({ ohm: 390 });
    // Never a smaller one: it would be too much current.
    expect(resistor({ resistors_ohm: [330] })).toEqual({ ohm: 390 });
  });
  it("pulls and reservoirs may be a little different", () => {
    const project = (drawer: object) =>
      assign(
        make(
          [
            BOARD3,
            USB,
            { ref: "M1", part: "module/ds18b20" },
            { ref: "M2", part: "module/ws2812b-ring-16", options: { brightness: 0.1 } },
          ],
          [],
          { drawer },
        ),
        catalogue,
      ).project.parts;
    const plain = project({});
    expect(plain.find((p) => p.ref === "M1")!.companions!.pullUp).toEqual({ ohm: 4700 });
    const owned = project({ resistors_ohm: [5100, 470, 1e6], capacitors_F: [2.2e-3, 1e-7] });
    expect(owned.find((p) => p.ref === "M1")!.companions!.pullUp).toEqual({ ohm: 5100 });
    expect(owned.find((p) => p.ref === "M2")!.companions).toMatchObject({
      seriesResistor: { ohm: 470 },
      bulkCapacitor: { F: 2.2e-3 },
    });
    const far = project({ resistors_ohm: [100_000], capacitors_F: [1e-7] });
    expect(far.find((p) => p.ref === "M1")!.companions!.pullUp).toEqual({ ohm: 4700 });
    expect(far.find((p) => p.ref === "M2")!.companions!.bulkCapacitor).toEqual({ F: 1e-3 });
  });
  it("the kit says what is to be bought", () => {
    const p = assign(
      withDrawer({ parts: { "board/atmega328p-long": 1, "discrete/led-red": 1 }, resistors_ohm: [390] }),
      catalogue,
    ).project;
    const row = (id: string) => partsList(circuitOf(p, catalogue)).find((b) => b.part === id)!;
    expect(row("board/atmega328p-long")).toMatchObject({ quantity: 1, owned: 1, buy: 0 });
    expect(row("discrete/led-red")).toMatchObject({ quantity: 1, spares: 1, owned: 1, buy: 1 });
    expect(row("discrete/resistor")).toMatchObject({ owned: 2, buy: 0 });
    expect(row("supply/usb-port")).toMatchObject({ owned: 0, buy: 1 });
  });
  it("an owned board comes before others that fit as well", () => {
    const first = (drawer: object) => rankBoards(make([USB, LED], [], { drawer }), catalogue)[0]!;
    expect(first({}).board).not.toBe("board/atmega32u4-compact");
    expect(first({ parts: { "board/atmega32u4-compact": 2 } })).toMatchObject({
      board: "board/atmega32u4-compact",
      owned: true,
    });
  });
});

describe("the drawer as data", () => {
  it("edits replace lists, count parts, and drop what is gone", () => {
    let p = applyEdit(
      withDrawer({ parts: { "discrete/led-red": 3 } }),
      { type: "setDrawer", drawer: { parts: { "discrete/button": 2 } } },
      catalogue,
    );
    expect(p.drawer.parts).toEqual({ "discrete/led-red": 3, "discrete/button": 2 });
    p = applyEdit(
      p,
      { type: "setDrawer", drawer: { parts: { "discrete/led-red": 0 }, resistors_ohm: [100] } },
      catalogue,
    );
    expect(p.drawer).toEqual({ parts: { "discrete/button": 2 }, resistors_ohm: [100], capacitors_F: [] });
    const again = loadProject(JSON.parse(writeProject(p)), catalogue);
    expect(again.ok && again.project.drawer).toEqual(p.drawer);
  });
  it("nonsense is refused with its place", () => {
    expect(() => withDrawer({ resistors_ohm: [0] })).toThrow(/drawer\/resistors_ohm\/0/);
    expect(() => withDrawer({ shelf: 1 })).toThrow(/drawer\/shelf/);
  });
});
