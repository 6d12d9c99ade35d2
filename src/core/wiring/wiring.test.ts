import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { BOARD3, BOARD5, catalogue, planned, USB } from "../testing";
import { loom, netColours, partsList, PHASES, pinWords, runSheet } from ".";

const ALL = [
  USB,
  { ref: "S2", part: "supply/adapter-5v-2a" },
  { ref: "M1", part: "module/bme280", label: "Air", wire_cm: 40 },
  { ref: "M2", part: "module/ssd1306-i2c", label: "Display" },
  { ref: "M3", part: "module/ws2812b-strip", label: "Light", options: { pixels: 10 } },
  { ref: "M4", part: "module/hc-sr04", label: "Echo" },
  { ref: "SW1", part: "discrete/button", label: "Button" },
  { ref: "D1", part: "discrete/led-red", label: "Lamp" },
];
const circuit = (rules: object = {}, board = BOARD3) =>
  circuitOf(planned([board, ...ALL], { houseRules: rules }), catalogue);

describe("run sheet", () => {
  it("a wire that carries more than a rail stands goes straight, with its gauge; the others still share", () => {
    const strip = { ref: "M3", part: "module/ws2812b-strip", label: "Light", options: { pixels: 60 } };
    const c = circuitOf(
      planned([
        BOARD3,
        USB,
        { ref: "S2", part: "supply/adapter-5v-10a" },
        strip,
        { ref: "M4", part: "module/hc-sr04" },
        { ref: "M5", part: "module/hc-sr04" },
      ]),
      catalogue,
    );
    const rows = runSheet(c);
    const fed = rows.find((r) => [r.from, r.to].includes("M3.5V") && r.kind === "wire")!;
    expect([fed.from, fed.to].sort()).toEqual(["M3.5V", "S2.5V"]);
    // 60 · 60 mA = 3.6 A.
    expect(fed.note).toMatch(/^.*\d+ AWG, up to 3\.6 A: no jumper, no breadboard rail$/);
    expect(rows.filter((r) => r.note.includes("AWG")).map((r) => r.net)).toEqual([fed.net]);
    expect(rows.some((r) => /rail/.test(r.to))).toBe(true);
  });
  it.each(["rails", "daisy-chain", "splice"])(
    "with %s, every net of the circuit is fully joined and nothing else",
    (sharing) => {
      const c = circuit({ sharing });
      const rows = runSheet(c).filter((r) => r.kind === "wire" || r.kind === "leg");
      const parent = new Map<string, string>();
      const find = (x: string): string => ((parent.get(x) ?? x) === x ? x : find(parent.get(x)!));
      for (const r of rows) parent.set(find(r.from), find(r.to));
      for (const net of c.netlist.nets) {
        const wired = net.ends
          .map((e) => `${e.ref}.${e.pin}`)
          .filter((e) =>
            c.netlist.wires.some(
              (w) => !w.cable && [`${w.from.ref}.${w.from.pin}`, `${w.to.ref}.${w.to.pin}`].includes(e),
            ),
          );
        expect(new Set(wired.map(find)).size, net.name).toBeLessThanOrEqual(1);
      }
      const roots = new Map<string, string>();
      for (const net of c.netlist.nets)
        for (const e of net.ends) {
          const root = find(`${e.ref}.${e.pin}`);
          if (rows.some((r) => r.from === `${e.ref}.${e.pin}` || r.to === `${e.ref}.${e.pin}`)) {
            expect(roots.get(root) ?? net.name).toBe(net.name);
            roots.set(root, net.name);
          }
        }
    },
  );
  it("keeps the safe order, and the sources come last", () => {
    const rows = runSheet(circuit());
    const order = rows.map((r) => PHASES.findIndex((p) => p.id === r.phase));
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(rows[0]!.note).toContain("Unplug every supply");
    expect(rows.at(-1)).toMatchObject({ kind: "cable", from: "S1.USB", to: "B1.USB" });
    expect(rows.find((r) => r.from === "S2.5V" || r.to === "S2.5V")!.phase).toBe("source");
    expect(rows.map((r) => r.step)).toEqual(rows.map((_, i) => i + 1));
  });
  it("uses only colours that the person owns, and lengths that they gave", () => {
    const rows = runSheet(circuit({ wireColours: ["white", "blue"] })).filter((r) => r.kind === "wire");
    expect(new Set(rows.map((r) => r.colour))).toEqual(new Set(["white", "blue"]));
    expect(rows.find((r) => r.from === "M1.VCC")!.length_cm).toBe(40);
  });
  it("keeps the leads of loose parts short, and the module's own wire long", () => {
    const parts = ALL.map((p) => (p.ref === "M3" ? { ...p, wire_cm: 50 } : p));
    const rows = runSheet(circuitOf(planned([BOARD3, ...parts]), catalogue));
    const length = (end: string) => rows.find((r) => r.from === end || r.to === end)!.length_cm;
    expect(length("CM3.+")).toBe(10);
    expect(length("RM3.1")).toBe(10);
    expect(length("M3.DIN")).toBe(50);
  });
  it("gives each wire an id that survives other edits", () => {
    const ids = (c: ReturnType<typeof circuit>) => new Set(runSheet(c).map((r) => r.id));
    const before = ids(circuitOf(planned([BOARD5, ...ALL.slice(0, 4)]), catalogue));
    const after = ids(
      circuitOf(planned([BOARD5, ...ALL.slice(0, 4), { ref: "D9", part: "discrete/led-red" }]), catalogue),
    );
    expect([...before].filter((x) => !after.has(x))).toEqual([]);
  });
});

describe("words and colours", () => {
  it("says where a pin is, counted from the USB end", () => {
    const c = circuit();
    expect(pinWords(c.netlist.instance("B1")!, "GP4")).toBe("left header, 6th from the USB end, printed GP4");
    expect(pinWords(c.netlist.instance("B1")!, "VBUS")).toBe("right header, first from the USB end, printed VBUS");
    expect(pinWords(c.netlist.instance("M1")!, "SDA")).toBe("4th of 4, printed SDA");
    expect(pinWords(c.netlist.instance("D1")!, "A")).toContain("long leg");
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
      circuitOf(planned([BOARD5, USB, ALL[7]!, { ref: "D2", part: "discrete/led-red" }]), catalogue),
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

describe("loom drawing", () => {
  const drawn = loom(circuit());
  it("has every part once, no two boxes overlapping, all inside the sheet", () => {
    expect(drawn.boxes.map((b) => b.ref).sort()).toEqual([...circuit().netlist.expanded.instances.keys()].sort());
    for (const a of drawn.boxes) {
      expect(a.x).toBeGreaterThanOrEqual(0);
      expect(a.x + a.w).toBeLessThanOrEqual(drawn.width);
      expect(a.y + a.h).toBeLessThanOrEqual(drawn.height);
      for (const b of drawn.boxes)
        if (a.ref < b.ref)
          expect(
            a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y,
            `${a.ref} ${b.ref}`,
          ).toBe(true);
    }
  });
  it("draws the board's pins in true header order", () => {
    const board = drawn.boxes.find((b) => b.kind === "board")!;
    const left = board.pins
      .filter((p) => p.side === "left" && p.label !== "USB")
      .sort((a, b) => a.y - b.y)
      .map((p) => p.label);
    expect(left.slice(0, 6)).toEqual(["GP0", "GP1", "GND", "GP2", "GP3", "GP4"]);
    const right = board.pins
      .filter((p) => p.side === "right")
      .sort((a, b) => a.y - b.y)
      .map((p) => p.label);
    expect(right[0]).toBe("VBUS");
  });
  it("gives every net of a channel a lane of its own", () => {
    const lanes = drawn.nets.flatMap((n) => [...n.path.matchAll(/M([\d.]+) ([\d.]+)V([\d.]+)/g)].map((m) => `${m[1]}`));
    expect(new Set(lanes).size).toBe(lanes.length);
  });
});
