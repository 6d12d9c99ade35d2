import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { applyEdit, type Project } from "../project";
import { runSheet } from "../build";
import { i2cBuses } from "../circuit/buses";
import { supplyWires } from "../circuit/power";
import { assign } from "../plan/assign";
import { catalogue, check, make, planned } from "../testing";
import {
  builtAt,
  builtOtherRow,
  builtSwapped,
  builtTurned,
  consequences,
  cutWire,
  findPoint,
  handWires,
  joinPoints,
  pinMap,
  putBetween,
  suggestPoints,
  takeOut,
  type Act,
} from ".";

const done = (p: Project, a: Act): Project => {
  if (!a.ok) throw new Error(a.why);
  return a.edits.reduce((q, e) => applyEdit(q, e, catalogue), p);
};
const join = (p: Project, ...pairs: [string, string][]) =>
  pairs.reduce((q, [a, b]) => done(q, joinPoints(q, catalogue, a, b)), p);
const why = (a: Act) => (a.ok ? "" : a.why);
const loud = (p: Project) =>
  check(p)
    .filter((f) => f.severity !== "note")
    .map((f) => `${f.severity} ${f.rule}`);
const bench = () =>
  planned([
    { ref: "B1", part: "board/rp2040-forty" },
    { ref: "S1", part: "supply/usb-port" },
    { ref: "S2", part: "supply/adapter-5v-2a" },
    { ref: "M1", part: "module/bme280", label: "Air" },
    { ref: "M2", part: "module/ssd1306-i2c", label: "Display" },
    { ref: "M3", part: "module/ws2812b-strip", label: "Tank light", options: { pixels: 8 } },
    { ref: "SW1", part: "discrete/button", label: "Mist button" },
    { ref: "LED1", part: "discrete/led-red" },
  ]);

describe("points by what people call them", () => {
  const c = circuitOf(bench(), catalogue);
  it.each([
    ["M1.SDA", "M1.SDA"],
    ["m1.sda", "M1.SDA"],
    ["M1 SCL", "M1.SCL"],
    ["display sda", "M2.SDA"],
    ["Air SCL", "M1.SCL"],
    ["the strip data in", "M3.DIN"],
    ["tank light data in", "M3.DIN"],
    ["strip ground", "M3.GND"],
    ["GP4", "B1.GP4"],
    ["gp15", "B1.GP15"],
    ["ground", "B1.GND"],
    ["GND", "B1.GND"],
    ["3.3V rail", "B1.3V3"],
    ["3V3", "B1.3V3"],
    ["left header third pin", "B1.GND"],
    ["first pin of the left header", "B1.GP0"],
    ["right header 5th pin", "B1.3V3"],
    ["red led anode", "LED1.A"],
    ["led cathode", "LED1.K"],
    ["display plus", "M2.VCC"],
    ["adapter 5V", "S2.5V"],
    ["5V of the adapter", "S2.5V"],
    ["mist button 1", "SW1.1"],
  ])("%s is %s", (text, end) => {
    expect(findPoint(c, text)).toEqual({ kind: "one", end });
  });
  it("a part that somebody called Left is not the left header", () => {
    const two = circuitOf(
      make([
        { ref: "B1", part: "board/rp2040-forty" },
        { ref: "SW1", part: "discrete/button", label: "Left" },
      ]),
      catalogue,
    );
    expect(findPoint(two, "left 1")).toEqual({ kind: "one", end: "SW1.1" });
    expect(findPoint(two, "left header pin 1")).toEqual({ kind: "one", end: "B1.GP0" });
    expect(findPoint(two, "left first")).toEqual({ kind: "one", end: "B1.GP0" });
  });
  it("asks where several fit, and names the nearest where none does", () => {
    const two = findPoint(
      circuitOf(
        make([
          { ref: "B1", part: "board/rp2040-forty" },
          { ref: "M1", part: "module/sht31" },
          { ref: "M2", part: "module/sht31" },
        ]),
        catalogue,
      ),
      "sht31 sda",
    );
    expect(two).toEqual({ kind: "many", ends: ["M1.SDA", "M2.SDA"] });
    const none = findPoint(c, "M1.SDX");
    expect(none.kind).toBe("none");
    expect(none.kind === "none" && none.near[0]).toBe("M1.SDA");
    for (const odd of ["", " ", "constructor", "__proto__", "M1.", ".SDA", "🙂", "a".repeat(5000)])
      expect(findPoint(c, odd).kind, odd.slice(0, 20)).toBe("none");
  });
  it("suggests pins in printed order, narrowed by every word", () => {
    expect(suggestPoints(c, "disp").map((s) => s.end)).toEqual(["M2.GND", "M2.VCC", "M2.SCL", "M2.SDA"]);
    expect(suggestPoints(c, "display sd").map((s) => s.end)).toEqual(["M2.SDA"]);
    expect(suggestPoints(c, "qqq")).toEqual([]);
  });
});

describe("any wire, by hand", () => {
  it("is made and cut, and says in one sentence why not", () => {
    const p = bench();
    const q = join(p, ["LED1.A", "GP20"]);
    expect(q.links.at(-1)).toEqual({ from: "LED1.A", to: "B1.GP20", by: "hand", locked: true });
    expect(done(q, cutWire(q, catalogue, "GP20", "led anode")).links).toEqual(p.links);
    expect(why(joinPoints(q, catalogue, "LED1.A", "B1.GP20"))).toMatch(/joined by a wire already/);
    expect(why(joinPoints(q, catalogue, "LED1.A", "LED1.A"))).toMatch(/one point; a wire needs two/);
    expect(why(joinPoints(q, catalogue, "S1.USB", "B1.GP3"))).toMatch(/plug or socket/);
    expect(why(joinPoints(q, catalogue, "LED1R.1", "B1.GP3"))).toMatch(/no point|comes with/);
    expect(why(cutWire(q, catalogue, "M1.SDA", "B1.GP20"))).toMatch(/M1.SDA is joined to B1.GP4/);
    expect(why(joinPoints(q, catalogue, "M9.X", "B1.GP3"))).toMatch(/no point "M9.X"/);
  });
  it("can be one that a stop follows from: the verdict says so at once, before it is made", () => {
    const p = bench();
    const a = joinPoints(p, catalogue, "B1.VBUS", "B1.GP3");
    const k = consequences(p, a.ok ? a.edits : [], catalogue);
    expect(k.comes.map((f) => `${f.severity} ${f.rule}`)).toContain("stop level.overdrive");
    expect(k.after).toMatch(/Do not power/);
    expect(k.before).not.toMatch(/Do not power/);
    const b = cutWire(p, catalogue, "M1.SDA", "B1.GP4");
    const l = consequences(p, b.ok ? b.edits : [], catalogue);
    expect(l.lost).toEqual(["M1.SDA from B1.GP4"]);
    expect(l.parted.length).toBe(1);
    const n = joinPoints(p, catalogue, "M1.SDA", "M1.SCL");
    expect(consequences(p, n.ok ? n.edits : [], catalogue).joined).toEqual([["SCL", "SDA"]]);
  });
  it("keeps length, gauge and colour of its own, the same everywhere", () => {
    let p = bench();
    p = applyEdit(p, { type: "setLink", from: "M1.SDA", to: "B1.GP4", cm: 35, awg: 24, colour: "violet" }, catalogue);
    const row = handWires(circuitOf(p, catalogue)).find((w) => w.from === "M1.SDA");
    expect(row).toMatchObject({
      cm: 35,
      awg: 24,
      colour: "violet",
      by: "plan",
      own: { cm: true, awg: true, colour: true },
    });
    p = applyEdit(p, { type: "setLink", from: "B1.GP4", to: "M1.SDA", cm: null, colour: null }, catalogue);
    expect(p.links.find((l) => l.from === "M1.SDA")).toEqual({ from: "M1.SDA", to: "B1.GP4", by: "plan", awg: 24 });
  });
});

describe("one length for one wire", () => {
  it("in the table, the run sheet, the bus's capacitance and the supply's drop", () => {
    const p = bench();
    const set = (from: string, to: string, cm: number) => applyEdit(p, { type: "setLink", from, to, cm }, catalogue);
    const lineOf = (q: Project) => i2cBuses(circuitOf(q, catalogue))[0]!.load;
    const long = set("M1.SDA", "B1.GP4", 220);
    expect(lineOf(long).cm - lineOf(p).cm).toBe(200);
    expect(lineOf(long).wires_F).toBeGreaterThan(lineOf(p).wires_F);
    expect(runSheet(circuitOf(long, catalogue)).some((r) => r.length_cm === 220)).toBe(true);
    const feed = p.links.find((l) => l.from === "M3.5V")!;
    const drop = (q: Project) => {
      const c = circuitOf(q, catalogue);
      return supplyWires(c.netlist, c.power).find(
        (w) => [w.from, w.to].sort().join() === [feed.from, feed.to].sort().join(),
      )!;
    };
    const far = set(feed.from, feed.to, 100);
    expect(drop(far).cm).toBe(100);
    // 2·L·R: five times the usual 20 cm.
    expect(drop(far).ohm / drop(p).ohm).toBeCloseTo(5, 6);
  });
});

describe("put in between", () => {
  const wired = () =>
    make(
      [
        { ref: "B1", part: "board/atmega328p-long" },
        { ref: "S1", part: "supply/usb-port" },
        { ref: "S2", part: "supply/adapter-12v-2a" },
        { ref: "X1", part: "discrete/gauge-12v" },
        { ref: "LED1", part: "discrete/led-red", companions: { seriesResistor: { ohm: 470 } } },
        { ref: "M1", part: "module/relay-1" },
      ],
      [
        ["S1.USB", "B1.USB"],
        ["S2.12V", "X1.VCC"],
        ["S2.GND", "X1.GND"],
        ["S2.GND", "B1.GND"],
        ["X1.IN", "B1.D9"],
        ["LED1.A", "B1.D4"],
        ["LED1.K", "B1.GND"],
        ["M1.VCC", "B1.5V"],
        ["M1.GND", "B1.GND"],
        ["M1.IN", "B1.D7"],
      ],
    );
  it.each([
    ["discrete/resistor", "LED1.A", "B1.D4", ["1", "2"]],
    ["discrete/toggle", "S2.12V", "X1.VCC", ["COM", "A"]],
    ["discrete/diode-1n5819", "X1.VCC", "S2.12V", ["A", "K"]],
    ["module/ina219", "S2.12V", "X1.VCC", ["VIN+", "VIN-"]],
    ["module/isolator-2ch", "M1.IN", "B1.D7", null],
    ["module/shifter-bss138-4", "M1.IN", "B1.D7", null],
  ])("%s into %s – %s, the right way round", (id, a, b, legs) => {
    const p = wired();
    const q = done(p, putBetween(p, catalogue, a, b, id));
    const ref = q.parts.at(-1)!.ref;
    const at = (end: string) => q.links.flatMap((l) => (l.from === end ? [l.to] : l.to === end ? [l.from] : []));
    expect(q.links.some((l) => [l.from, l.to].includes(a) && [l.from, l.to].includes(b))).toBe(false);
    const mine = q.links.filter((l) => [l.from, l.to].some((e) => e.startsWith(`${ref}.`)));
    expect(mine).toHaveLength(2);
    expect(mine.every((l) => l.by === "hand")).toBe(true);
    if (legs?.[0] && id.includes("diode")) {
      expect(at(`${ref}.A`)).toEqual(["S2.12V"]);
      expect(at(`${ref}.K`)).toEqual(["X1.VCC"]);
    }
    if (id.includes("ina219")) expect(at(`${ref}.VIN+`)).toEqual(["S2.12V"]);
    // Taken out again, the gap closed, it is as before.
    const back = done(q, takeOut(q, catalogue, ref, true));
    const pairs = (x: Project) => x.links.map((l) => [l.from, l.to].sort().join(" ")).sort();
    expect(pairs(back)).toEqual(pairs(p));
    expect(pairs(done(q, takeOut(q, catalogue, ref, false)))).toHaveLength(pairs(p).length - 1);
  });
  it("a transistor stage into a gauge that wants 12 V: gate at the pin, drain at the gauge, source at ground", () => {
    const p = wired();
    const q = done(p, putBetween(p, catalogue, "X1.IN", "B1.D9", "discrete/nmos-irlz44n"));
    const pairs = q.links.map((l) => `${l.from} ${l.to}`);
    expect(pairs).toEqual(
      expect.arrayContaining(["R1.1 B1.D9", "R1.2 Q1.G", "Q1.D X1.IN", "Q1.S B1.GND", "R2.1 Q1.G", "R2.2 B1.GND"]),
    );
    expect(loud(q).filter((x) => x.startsWith("stop"))).toEqual([]);
    expect(why(putBetween(p, catalogue, "S2.12V", "X1.VCC", "discrete/npn-2n2222"))).toMatch(
      /between a pin of the board/,
    );
  });
  it("says why a part does not fit in a wire", () => {
    const p = wired();
    expect(why(putBetween(p, catalogue, "X1.IN", "B1.D8", "discrete/resistor"))).toMatch(/no wire from X1.IN to B1.D8/);
    expect(why(putBetween(p, catalogue, "X1.IN", "B1.D9", "module/bme280"))).toMatch(/no two ends/);
    expect(why(putBetween(p, catalogue, "X1.IN", "B1.D9", "module/none"))).toMatch(/no part module\/none/);
    expect(why(takeOut(p, catalogue, "M1", true))).toMatch(/no gap/);
    expect(why(takeOut(p, catalogue, "Q9", false))).toMatch(/no part Q9/);
  });
});

describe("jobs that only wires by hand can do", () => {
  const AVR = { ref: "B1", part: "board/atmega328p-long" };
  const USB = { ref: "S1", part: "supply/usb-port" };
  it("two contacts in series, and two side by side, are read as one", () => {
    const two = make([
      AVR,
      USB,
      { ref: "SW1", part: "discrete/button", companions: { pullUp: "internal" } },
      { ref: "SW2", part: "discrete/button" },
    ]);
    const series = join(two, ["S1.USB", "B1.USB"], ["SW1.1", "D4"], ["SW1.2", "SW2.1"], ["SW2.2", "ground"]);
    expect(loud(series)).toEqual([]);
    const side = join(
      two,
      ["S1.USB", "B1.USB"],
      ["SW1.1", "D4"],
      ["SW2.1", "SW1.1"],
      ["SW1.2", "ground"],
      ["SW2.2", "SW1.2"],
    );
    expect(loud(side)).toEqual([]);
  });
  it("a module straight to a module, and a project without any board", () => {
    const p = join(
      make([
        { ref: "M1", part: "module/usb-uart-3v3" },
        { ref: "M2", part: "module/isolator-2ch" },
        { ref: "S2", part: "supply/bench", options: { output_V: 3.4 } },
        { ref: "M3", part: "module/gps-neo6m" },
      ]),
      ["M1.3V3", "M2.VCC1"],
      ["M1.GND", "M2.GND1"],
      ["S2.+", "M2.VCC2"],
      ["S2.-", "M2.GND2"],
      ["M3.VCC", "S2.+"],
      ["M3.GND", "S2.-"],
      ["M1.TX", "M2.INA"],
      ["M2.OUTA", "M3.RX"],
      ["M3.TX", "M2.INB"],
      ["M2.OUTB", "M1.RX"],
    );
    expect(loud(p).filter((x) => /fault|ground-joined/.test(x))).toEqual([]);
  });
  it("lights in a string on a rail, switched by a transistor", () => {
    const p = join(
      make([
        AVR,
        USB,
        { ref: "S2", part: "supply/adapter-12v-2a" },
        { ref: "LED1", part: "discrete/led-red" },
        { ref: "LED2", part: "discrete/led-red" },
        { ref: "LED3", part: "discrete/led-red" },
        { ref: "R1", part: "discrete/resistor", options: { resistance_ohm: 470 } },
        { ref: "Q1", part: "discrete/nmos-irlz44n" },
        { ref: "R2", part: "discrete/resistor", options: { resistance_ohm: 220 } },
        { ref: "R3", part: "discrete/resistor", options: { resistance_ohm: 10_000 } },
      ]),
      ["S1.USB", "B1.USB"],
      ["S2.GND", "ground of the board"],
      ["S2.12V", "R1.1"],
      ["R1.2", "LED1.A"],
      ["LED1.K", "LED2.A"],
      ["LED2.K", "LED3.A"],
      ["LED3.K", "Q1.D"],
      ["Q1.S", "B1.GND"],
      ["Q1.G", "R2.1"],
      ["R2.2", "D9"],
      ["Q1.G", "R3.1"],
      ["R3.2", "B1.GND"],
    );
    expect(loud(p)).toEqual([]);
  });
});

describe("the planner and what a person wired", () => {
  it("keeps it, plans the rest round it, and does not refuse over a wrong wire", () => {
    const parts = [
      { ref: "B1", part: "board/rp2040-forty" },
      { ref: "S1", part: "supply/usb-port" },
      { ref: "M1", part: "module/bme280" },
      { ref: "M2", part: "module/hc-sr04" },
      { ref: "SW1", part: "discrete/button" },
      { ref: "SW2", part: "discrete/button" },
    ];
    // SDA on a clock pin, and two buttons on one pin.
    const drawn = join(make(parts), ["M1.SDA", "GP5"], ["SW1.1", "GP20"], ["SW2.1", "GP20"]);
    const a = assign(drawn, catalogue);
    expect(a.status).toBe("optimal");
    for (const l of drawn.links) expect(a.project.links).toContainEqual(l);
    const at = (end: string) =>
      a.project.links.flatMap((l) => (l.from === end ? [l.to] : l.to === end ? [l.from] : []));
    expect(at("M1.SDA")).toEqual(["B1.GP5"]);
    expect(at("M2.TRIG")).toHaveLength(1);
    // Nothing else is put on the pins that the person took.
    expect(at("B1.GP5")).toEqual(["M1.SDA"]);
    expect(at("B1.GP20").sort()).toEqual(["SW1.1", "SW2.1"]);
    expect(check(a.project).map((f) => f.rule)).toContain("pin.capability");
  });
});

describe("as built", () => {
  it("follows one wire to where it really is, keeps it, and says the shortest way back", () => {
    const p = bench();
    const a = builtAt(p, catalogue, "SW1.1", p.links.find((l) => l.from === "SW1.1")!.to, "GP22");
    expect(a.ok && a.says).toMatch(/shortest way back/);
    const q = done(p, a);
    expect(q.links).toContainEqual({ from: "SW1.1", to: "B1.GP22", by: "hand", locked: true });
    expect(q.links).toHaveLength(p.links.length);
    expect(why(builtAt(p, catalogue, "SW1.1", "B1.GP9", "GP22"))).toMatch(/no wire from/);
    expect(why(builtAt(q, catalogue, "SW1.1", "GP22", "GP22"))).toMatch(/planned already/);
  });
  it("two wires swapped come back when swapped again", () => {
    const p = bench();
    const q = done(p, builtSwapped(p, catalogue, "B1.GP4", "B1.GP5"));
    const at = (x: Project, end: string) =>
      x.links
        .filter((l) => l.to === end)
        .map((l) => l.from)
        .sort();
    expect(at(q, "B1.GP5")).toEqual(at(p, "B1.GP4"));
    expect(check(q).some((f) => f.severity === "fault")).toBe(true);
    const r = done(q, builtSwapped(q, catalogue, "GP4", "GP5"));
    expect(at(r, "B1.GP4")).toEqual(at(p, "B1.GP4"));
  });
  it("a plug turned round reverses its pins: supply and ground exchange places", () => {
    const p = bench();
    const q = done(p, builtTurned(p, catalogue, "M2"));
    const pins = catalogue.get("module/ssd1306-i2c")!.pins.map((x) => x.label);
    const at = (x: Project, end: string) =>
      x.links.flatMap((l) => (l.from === end ? [l.to] : l.to === end ? [l.from] : []));
    pins.forEach((l, i) => expect(at(q, `M2.${pins[pins.length - 1 - i]}`).sort(), l).toEqual(at(p, `M2.${l}`).sort()));
    expect(
      done(q, builtTurned(q, catalogue, "M2"))
        .links.map((l) => [l.from, l.to].sort().join())
        .sort(),
    ).toEqual(p.links.map((l) => [l.from, l.to].sort().join()).sort());
    expect(why(builtTurned(p, catalogue, "B1"))).toMatch(/board/);
  });
  it("the other row of the header: straight across", () => {
    const p = make(
      [
        { ref: "B1", part: "board/rp2040-forty" },
        { ref: "SW1", part: "discrete/button" },
      ],
      [
        ["SW1.1", "B1.GP0"],
        ["SW1.2", "B1.GND"],
      ],
    );
    const q = done(p, builtOtherRow(p, catalogue, "SW1"));
    // Pin 1 is across from pin 40, pin 3 from pin 38.
    expect(q.links.map((l) => l.to)).toEqual(["B1.VBUS", "B1.GND.5"]);
  });
});

describe("a pin map for another program", () => {
  it("has every need with its pin, in both languages", () => {
    const c = circuitOf(bench(), catalogue);
    const rows = pinMap(c);
    expect(rows.map((r) => `${r.need} ${r.pin}`).sort()).toEqual(
      c.netlist.bindings.map((b) => `${b.ref}.${b.pin} ${b.hostPin}`).sort(),
    );
    expect(rows.every((r) => /^PIN_|_PIN$/.test(r.name))).toBe(true);
  });
});
