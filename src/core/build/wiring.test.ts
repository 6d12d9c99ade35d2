import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { BENCH, BOARD3, BOARD5, CABLE, catalogue, make, planned, USB } from "../testing";
import { findings } from "../checks";
import { pinConstants } from "../firmware";
import { handWires } from "../wires";
import { layOutHere } from "./loom/elk";
import { coloursOf, loom, netColours, partsList, pinWords, runSheet, USUAL_COLOURS } from ".";

const circuit = (rules: object = {}, board = BOARD3) =>
  circuitOf(planned([board, ...BENCH], { houseRules: rules }), catalogue);

describe("words and colours", () => {
  it("says where a pin is, counted from the USB end", () => {
    const c = circuit();
    expect(pinWords(c.netlist.instance("B1")!, "GP4")).toBe("left header, 6th from the USB end, printed GP4");
    expect(pinWords(c.netlist.instance("B1")!, "VBUS")).toBe("right header, first from the USB end, printed VBUS");
    expect(pinWords(c.netlist.instance("M1")!, "SDA")).toBe("4th of 4, printed SDA");
    expect(pinWords(c.netlist.instance("D1")!, "A")).toContain("long leg");
    // Boards whose aerial points up, double rows and bare chips are counted from another end.
    const words = (part: string, pin: string) =>
      pinWords(circuitOf(make([{ ref: "B1", part }]), catalogue).netlist.instance("B1")!, pin);
    expect(words("board/esp32-thirtyeight", "3V3")).toBe("left header, first from the aerial end, printed 3V3");
    expect(words("board/linux-forty", "GPIO4")).toBe(
      "position 7 of the double row (left header, 4th from the marked corner), GPIO4",
    );
    expect(words("board/linux-forty", "GPIO14")).toContain("position 8 of the double row (right header");
    expect(words("board/atmega2560-long", "D30")).toBe("double row at the far end, printed D30");
    // DIP numbering runs down the left side and up the right.
    expect(words("chip/attiny85-dip8", "VCC")).toMatch(/^pin 8 \(right side, first from the notch\)/);
    expect(words("chip/atmega328p-dip28", "PC5")).toMatch(/^pin 28 /);
  });
  it("never gives a signal a supply's colour, nor ground and supply one, whatever colours are owned", () => {
    const { nets } = circuit().netlist;
    const sets = [
      ["white"],
      ["white", "blue"],
      ["red"],
      ["black"],
      ["green", "red", "black"],
      USUAL_COLOURS,
      ["pink", "teal"],
    ];
    for (const owned of sets) {
      const colours = netColours(nets, owned);
      const of = (kind: string) => new Set(nets.filter((n) => n.kind === kind).map((n) => colours.get(n.id)!));
      const [ground, supply] = [of("ground"), of("supply")];
      const signals = new Set([...of("signal"), ...of("bus-line")]);
      expect(
        [...ground].filter((x) => supply.has(x) || signals.has(x)),
        owned.join(),
      ).toEqual([]);
      expect(
        [...supply].filter((x) => signals.has(x)),
        owned.join(),
      ).toEqual([]);
    }
  });
  it("gives grounds that must stay apart colours of their own", () => {
    const c = circuitOf(
      make(
        [BOARD5, USB, { ref: "S2", part: "supply/adapter-5v-2a" }, { ref: "M1", part: "module/isolator-2ch" }],
        [CABLE, ["M1.VCC1", "B1.5V"], ["M1.GND1", "B1.GND"], ["M1.VCC2", "S2.5V"], ["M1.GND2", "S2.GND"]],
      ),
      catalogue,
    );
    const grounds = c.netlist.nets.filter((n) => n.kind === "ground" && n.ends.length > 1);
    expect(new Set(grounds.map((n) => coloursOf(c).get(n.id))).size).toBe(2);
  });
  it("grounds are black and 5 V is red when those are there", () => {
    const c = circuit();
    const colours = netColours(c.netlist.nets);
    for (const n of c.netlist.nets) {
      if (n.kind === "ground") expect(colours.get(n.id)).toBe("black");
      if (n.kind === "supply" && n.V && n.V.typ > 4.4) expect(colours.get(n.id)).toBe("red");
    }
  });
});

describe("parts list", () => {
  it("counts like parts together, with companions and wires", () => {
    const list = partsList(
      circuitOf(planned([BOARD5, USB, BENCH[7]!, { ref: "D2", part: "discrete/led-red" }]), catalogue),
    );
    expect(list.find((b) => b.part === "discrete/led-red")).toMatchObject({
      quantity: 2,
      spares: 1,
      refs: ["D1", "D2"],
    });
    expect(list.find((b) => b.part === "discrete/resistor")).toMatchObject({ quantity: 2, value: "390 Ω" });
    expect(list.filter((b) => b.part === "wire").reduce((s, b) => s + b.quantity, 0)).toBeGreaterThan(0);
  });
});

describe("names that a person gives to a plug's pins", () => {
  const pins = { "1": { name: "RAINPULSE", role: "digital-in" }, "2": { name: "RAINGND", role: "ground" } };
  const c = circuitOf(
    planned([BOARD5, USB, { ref: "J1", part: "connector/jst-2", label: "Rain plug", options: { pins } }]),
    catalogue,
  );
  it("stand in the net, the sheet, the drawing, the program and the findings", async () => {
    const row = runSheet(c).find((r) => r.from === "J1.1")!;
    expect(row.net).toMatch(/^D\d+·RAINPULSE$/);
    expect(row.fromWords).toContain("RAINPULSE");
    expect(runSheet(c).find((r) => r.from === "J1.2")!.fromWords).toContain("RAINGND");
    const box = (await loom(c, layOutHere)).boxes.find((b) => b.ref === "J1")!;
    expect(box.pins.map((p) => p.label).join()).toContain("RAINPULSE");
    expect(pinConstants(c, "B1", "sketch").map((k) => k.name)).toContain("PIN_RAIN_PLUG_RAINPULSE");
    const said = findings(c).filter((f) => f.at.includes("J1.1"));
    for (const f of said) if (f.message.includes("J1.1")) expect(f.message).toContain("J1.1 (RAINPULSE)");
    expect(said.length).toBeGreaterThan(0);
    expect(handWires(c).find((w) => w.from === "J1.1")!.fromLabel).toBe("Rain plug, RAINPULSE");
  });
});
