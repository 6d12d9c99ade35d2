import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { circuitOf } from "..";
import { BOARD3, BOARD5, CABLE, catalogue, make, planned, USB } from "../../testing";
import { expand, voltName } from ".";
import { Union } from "./union";

const net = (c: ReturnType<typeof circuitOf>, end: string) => c.netlist.netOf(end);

describe("disjoint sets", () => {
  it("agree with a slow picture of the same joins", () => {
    const pair = fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 12 }));
    fc.assert(
      fc.property(fc.array(pair, { maxLength: 30 }), (pairs) => {
        const u = new Union();
        const groups = Array.from({ length: 13 }, (_, i) => new Set([i]));
        for (let i = 0; i < 13; i++) u.add(String(i));
        for (const [a, b] of pairs) {
          u.join(String(a), String(b));
          const merged = new Set([...groups[a]!, ...groups[b]!]);
          for (const x of merged) groups[x] = merged;
        }
        for (let i = 0; i < 13; i++)
          for (let j = 0; j < 13; j++)
            if ((u.find(String(i)) === u.find(String(j))) !== groups[i]!.has(j)) return false;
        return [...u.members().values()].flat().length === 13;
      }),
    );
  });
});

describe("expansion", () => {
  it("adds nothing that the project does not say", () => {
    const p = make([BOARD5, USB, { ref: "D1", part: "discrete/led-red" }], [CABLE, ["D1.A", "B1.D7"]]);
    const e = expand(p, catalogue);
    expect([...e.instances.keys()]).toEqual(["B1", "S1", "D1"]);
    expect(e.wires).toHaveLength(2);
  });
  it("puts the resistor on the side that the house rule says", () => {
    const led = { ref: "D1", part: "discrete/led-red", companions: { seriesResistor: { ohm: 330 } } };
    const wires = (houseRules: object) =>
      expand(
        make([BOARD5, USB, led], [CABLE, ["D1.A", "B1.D7"], ["D1.K", "B1.GND"]], { houseRules }),
        catalogue,
      ).wires.map((w) => [`${w.from.ref}.${w.from.pin}`, `${w.to.ref}.${w.to.pin}`].sort().join(" "));
    expect(wires({})).toEqual(expect.arrayContaining(["B1.D7 RD1.1", "D1.A RD1.2", "B1.GND D1.K"]));
    expect(wires({ ledResistorSide: "cathode" })).toEqual(
      expect.arrayContaining(["B1.D7 D1.A", "D1.K RD1.2", "B1.GND RD1.1"]),
    );
  });
  it("stands buffer and resistor in the wire in the right order, with every spare gate tied", () => {
    const strip = {
      ref: "M3",
      part: "module/ws2812b-strip",
      companions: { seriesResistor: { ohm: 330 }, shifter: { part: "module/buffer-74ahct125", pin: "DIN" } },
    };
    const c = circuitOf(
      make([BOARD3, USB, strip], [CABLE, ["M3.5V", "B1.VBUS"], ["M3.GND", "B1.GND"], ["M3.DIN", "B1.GP2"]]),
      catalogue,
    );
    expect(net(c, "B1.GP2")).toBe(net(c, "UM3.1A"));
    expect(net(c, "UM3.1Y")).toBe(net(c, "RM3.1"));
    expect(net(c, "RM3.2")).toBe(net(c, "M3.DIN"));
    expect(net(c, "UM3.VCC")).toBe(net(c, "M3.5V"));
    for (const pin of ["1OE", "2A", "2OE", "3A", "3OE", "4A", "4OE"])
      expect(net(c, `UM3.${pin}`), pin).toBe(net(c, "B1.GND"));
    // The buffer's own capacitor came along.
    expect(c.netlist.instance("CUM3")!.vars.capacitance_uF).toBeCloseTo(0.1, 9);
    expect(c.netlist.bindings).toEqual([
      expect.objectContaining({ ref: "M3", pin: "DIN", hostPin: "GP2", direct: false }),
    ]);
  });
  it("reports a companion that it can't place instead of dropping it", () => {
    const p = make([
      BOARD5,
      USB,
      { ref: "D1", part: "discrete/led-red", companions: { flyback: { part: "discrete/resistor" } } },
    ]);
    expect(expand(p, catalogue).unplaced).toEqual([{ ref: "D1", key: "flyback" }]);
  });
  it("takes null for deliberately left out", () => {
    const p = make([BOARD5, USB, { ref: "D1", part: "discrete/led-red", companions: { seriesResistor: null } }]);
    expect(expand(p, catalogue)).toMatchObject({ unplaced: [] });
    expect(expand(p, catalogue).instances.size).toBe(3);
  });
});

describe("nets", () => {
  const c = circuitOf(
    planned([
      BOARD5,
      USB,
      { ref: "M2", part: "module/ssd1306-i2c", label: "Display" },
      { ref: "D1", part: "discrete/led-red", label: "Lamp" },
    ]),
    catalogue,
  );
  it("joins what is one inside a part: all grounds, the cable's supply and ground", () => {
    expect(net(c, "B1.GND")).toBe(net(c, "B1.GND.3"));
    expect(net(c, "S1.GND")).toBe(net(c, "B1.GND"));
    expect(net(c, "B1:usb")).toBe(net(c, "S1:main"));
    expect(net(c, "B1.5V")).not.toBe(net(c, "S1.5V"));
  });
  it("names nets the same way everywhere", () => {
    expect(net(c, "M2.SDA").name).toBe("SDA");
    expect(net(c, "B1.GND").name).toBe("GND");
    expect(net(c, "M2.VCC").name).toBe("5V");
    expect(net(c, "B1.3V3").name).toBe("3V3");
    expect(net(c, "RD1.1").name).toMatch(/^D\d+·Lamp$/);
    const names = c.netlist.nets.map((n) => n.name);
    expect(new Set(names).size).toBe(names.length);
    expect([3.3, 5, 12, 1.8].map(voltName)).toEqual(["3V3", "5V", "12V", "1V8"]);
  });
  it("knows who drives and who listens", () => {
    const as = (end: string) => net(c, end).ends.find((e) => `${e.ref}.${e.pin}` === end)!.as;
    expect(as("M2.SCL")).toBe("receiver");
    expect(as("M2.SDA")).toBe("both");
    const lamp = c.netlist.bindings.find((b) => b.ref === "D1")!;
    expect(as(`B1.${lamp.hostPin}`)).toBe("driver");
    expect(as("B1.D0")).toBe("none");
  });
  it("is the same for the same project, whatever the order of the links", () => {
    const shuffled = make(
      [...c.project.parts],
      [...c.project.links].reverse().map((l): [string, string] => [l.to, l.from]),
    );
    const d = circuitOf(shuffled, catalogue);
    const picture = (x: typeof c) =>
      x.netlist.nets.map((n) => `${n.name}: ${n.ends.map((e) => `${e.ref}.${e.pin}`).sort()}`).sort();
    expect(picture(d)).toEqual(picture(c));
  });
});
