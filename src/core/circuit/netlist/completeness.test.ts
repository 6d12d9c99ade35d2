import { describe, expect, it } from "vitest";
import { assign, chainAfter, chainCandidates } from "../../plan/assign";
import { circuitOf } from "..";
import { targetById } from "../../firmware";
import { BOARD3, BOARD5, catalogue, check, find, make, planned, rules, USB } from "../../testing";

/** Everything that a definition can say must come out of the netlist and be judged: one block a kind of thing. */
const ADAPTER = { ref: "S2", part: "supply/adapter-5v-2a" };
const plan = (parts: object[], links: [string, string][] = [], rest: object = {}) => {
  const a = assign(make(parts, links, rest), catalogue);
  if (a.status !== "optimal") throw new Error(a.clash ?? "");
  return a.project;
};
const circuit = (p: ReturnType<typeof make>) => circuitOf(p, catalogue);
const to = (p: ReturnType<typeof make>, end: string) =>
  p.links.flatMap((l) => (l.from === end ? [l.to] : l.to === end ? [l.from] : []));
const binding = (p: ReturnType<typeof make>, ref: string, pin: string) =>
  circuit(p).netlist.bindings.find((b) => b.ref === ref && b.pin === pin);

describe("daisy chains", () => {
  const strips = () =>
    planned([
      BOARD5,
      USB,
      { ref: "S2", part: "supply/adapter-5v-10a" },
      { ref: "M1", part: "module/ws2812b-strip", options: { pixels: 10 } },
      { ref: "M2", part: "module/ws2812b-ring-16" },
    ]);
  it("a strip behind another takes no pin and no resistor of its own", () => {
    const before = strips();
    expect(to(before, "M2.DIN")).toHaveLength(1);
    expect(before.parts.find((p) => p.ref === "M2")!.companions!.seriesResistor).toEqual({ ohm: 330 });
    const p = assign(chainAfter(before, catalogue, "M2", "M1"), catalogue).project;
    expect(to(p, "M2.DIN")).toEqual(["M1.DOUT"]);
    expect(binding(p, "M2", "DIN")).toMatchObject({ chainedAfter: "M1", host: "B1" });
    expect(rules(p)).toEqual([]);
  });
  it("the program then drives one strip as long as both", () => {
    const p = assign(chainAfter(strips(), catalogue, "M2", "M1"), catalogue).project;
    const ino = targetById("sketch")!
      .files(circuit(p))
      .find((f) => f.path === "starter/starter.ino")!.text;
    expect(ino).toContain("Strip<26>");
    expect(ino.match(/Strip<\d+> \w+ =/g)).toHaveLength(1);
  });
  it("can't be put behind itself, and comes loose again", () => {
    const p = assign(chainAfter(strips(), catalogue, "M2", "M1"), catalogue).project;
    expect(chainCandidates(circuit(p).netlist, "M1")).toEqual([]);
    const back = assign(chainAfter(p, catalogue, "M2", null), catalogue).project;
    expect(to(back, "M2.DIN")[0]).toMatch(/^B1\./);
  });
  it("data into data-out is seen as two outputs that fight and an input without a driver", () => {
    const p = plan([BOARD5, USB, { ref: "M1", part: "module/ws2812b-ring-16", options: { brightness: 0.1 } }]);
    const din = to(p, "M1.DIN")[0]!;
    const wrong = { ...p, links: p.links.map((l) => (l.from === "M1.DIN" ? { from: "M1.DOUT", to: din } : l)) };
    expect(rules(wrong, "fault")).toEqual(expect.arrayContaining(["stop net.contention", "fault net.undriven"]));
  });
  it("shift registers share clock and latch, and their outputs serve lights", () => {
    const first = planned([BOARD5, USB, { ref: "M1", part: "module/74hc595" }, { ref: "M2", part: "module/74hc595" }]);
    const chained = chainAfter(first, catalogue, "M2", "M1");
    const withLight = make(
      [...chained.parts, { ref: "D1", part: "discrete/led-red", options: { current_mA: 3 } }],
      [...chained.links.map((l): [string, string] => [l.from, l.to]), ["D1.A", "M2.QC"]],
    );
    const p = assign(withLight, catalogue).project;
    expect(binding(p, "M2", "SRCLK")!.hostPin).toBe(binding(p, "M1", "SRCLK")!.hostPin);
    expect(binding(p, "M2", "RCLK")!.hostPin).toBe(binding(p, "M1", "RCLK")!.hostPin);
    expect(binding(p, "M2", "SER")).toMatchObject({ chainedAfter: "M1" });
    expect(binding(p, "D1", "A")).toMatchObject({ host: "M2", hostPin: "QC" });
    expect(rules(p)).toEqual([]);
    // Too bright for the register's pin, though a board pin would carry it: 6 mA is what the chip likes.
    const bright = {
      ...p,
      parts: p.parts.map((x) => (x.ref === "D1" ? { ...x, companions: { seriesResistor: { ohm: 390 } } } : x)),
    };
    expect(find(bright, "current.pin")).toMatchObject({ severity: "risk", evidence: { recommended_mA: 6 } });
  });
});

describe("pins behind other parts", () => {
  it("a multiplexer serves several analogue parts on one board pin", () => {
    const p = plan(
      [
        BOARD5,
        USB,
        { ref: "M1", part: "module/cd4067" },
        { ref: "R1", part: "discrete/potentiometer" },
        { ref: "R2", part: "discrete/potentiometer" },
      ],
      [
        ["R1.2", "M1.C0"],
        ["R2.2", "M1.C1"],
      ],
    );
    expect(binding(p, "R1", "2")).toMatchObject({ host: "M1", hostPin: "C0" });
    expect(to(p, "M1.SIG")[0]).toMatch(/^B1\.A\d$/);
    expect(rules(p)).toEqual([]);
  });
  it("an I2C switch keeps parts of one address apart", () => {
    const twice = [
      { ref: "M2", part: "module/vl53l0x" },
      { ref: "M3", part: "module/vl53l0x" },
    ];
    const apart = plan(
      [BOARD3, USB, { ref: "M1", part: "module/tca9548a" }, ...twice],
      [
        ["M2.SDA", "M1.SD0"],
        ["M2.SCL", "M1.SC0"],
        ["M3.SDA", "M1.SD1"],
        ["M3.SCL", "M1.SC1"],
      ],
    );
    expect(rules(apart)).toEqual([]);
    const together = make(
      [BOARD3, USB, { ref: "M1", part: "module/tca9548a" }, ...twice],
      [
        ["M2.SDA", "M1.SD0"],
        ["M2.SCL", "M1.SC0"],
        ["M3.SDA", "M1.SD0"],
        ["M3.SCL", "M1.SC0"],
      ],
    );
    expect(rules(together)).toContain("fault i2c.address-clash");
    // The planner takes one of them to a bus of its own.
    expect(rules(assign(together, catalogue).project)).toEqual([]);
  });
  it("an expander without the ability is told so", () => {
    const p = make(
      [BOARD5, USB, { ref: "M1", part: "module/74hc165" }, { ref: "D1", part: "discrete/led-red" }],
      [["D1.A", "M1.A"]],
    );
    expect(find(p, "pin.capability")!.message).toContain("M1.A, but A can't be an output");
  });
});

describe("open-drain and shared wires", () => {
  it("one-wire sensors share a pin by themselves", () => {
    const p = planned([BOARD3, USB, { ref: "M1", part: "module/ds18b20" }, { ref: "M2", part: "module/ds18b20" }]);
    expect(to(p, "M1.DQ")[0]).toBe(to(p, "M2.DQ")[0]);
    expect(rules(p)).toEqual([]);
    // The search for the smallest plan must not move one of them away on the next round.
    expect(assign(p, catalogue).project.links).toEqual(p.links);
  });
  it("an output that only pulls low needs a pull-up, to the board's own voltage", () => {
    const parts = [BOARD3, USB, { ref: "M1", part: "module/a3144" }];
    expect(rules(planned(parts))).toEqual([]);
    const bare = planned([BOARD3, USB, { ref: "M1", part: "module/a3144", companions: { pullUp: null } }]);
    expect(find(bare, "net.floating")!.message).toContain("can only pull");
  });
  it("two enable inputs wired together on purpose are one need, to one pin by mistake are two", () => {
    const parts = [BOARD3, USB, { ref: "M1", part: "module/max3485" }];
    const p = plan(parts, [["M1.RE", "M1.DE"]]);
    expect(binding(p, "M1", "RE")!.hostPin).toBe(binding(p, "M1", "DE")!.hostPin);
    expect(rules(p)).toEqual([]);
    const leds = make(
      [BOARD5, USB, { ref: "D1", part: "discrete/led-red" }, { ref: "D2", part: "discrete/led-red" }],
      [
        ["D1.A", "B1.D4"],
        ["D2.A", "B1.D4"],
      ],
    );
    expect(rules(leds)).toContain("fault pin.duplicate");
  });
});

describe("levels on every kind of side", () => {
  it("a shifter's two sides each have their own supply, and the bus passes through", () => {
    const links: [string, string][] = [
      ["M1.SDA", "U1.HV1"],
      ["M1.SCL", "U1.HV2"],
      ["U1.HV", "B1.VBUS"],
      ["U1.LV", "B1.3V3"],
    ];
    const parts = [
      BOARD3,
      USB,
      { ref: "M1", part: "module/lcd1602-i2c" },
      { ref: "U1", part: "module/shifter-bss138-4" },
    ];
    const p = plan(parts, links);
    expect(to(p, "U1.LV1")[0]).toMatch(/^B1\.GP/);
    expect(rules(p)).toEqual([]);
    // Straight onto the bus its pull-ups lift the 3.3 V pins to 5 V.
    expect(find(planned(parts.slice(0, 3)), "level.overdrive")).toMatchObject({ severity: "stop" });
  });
  it("a contact whose pull-up goes to 5 V overdrives a 3.3 V pin, though nothing drives it", () => {
    const knob = { ref: "M1", part: "module/encoder" };
    expect(rules(planned([BOARD3, USB, knob]))).toEqual([]);
    const f = find(plan([BOARD3, USB, knob], [["M1.VCC", "B1.VBUS"]]), "level.overdrive")!;
    expect(f).toMatchObject({ severity: "stop", evidence: { highest_V: 5.25, ceiling_V: 3.5 } });
    expect(f.fixes.map((x) => x.id)).toContain("logic-supply");
  });
  it("an analogue signal has a ceiling but no thresholds", () => {
    const p = planned([BOARD5, USB, { ref: "M1", part: "module/max9814" }]);
    const v = circuit(p).levels.find((x) => x.driver.ref === "M1")!;
    expect(v.analog).toBe(true);
    expect(rules(p)).toEqual([]);
    // 2.45 V at most leaves this microphone, even from 5 V; a gas sensor's output can reach its supply.
    expect(rules(plan([BOARD3, USB, { ref: "M1", part: "module/max9814" }], [["M1.VDD", "B1.VBUS"]]))).toEqual([]);
    expect(find(planned([BOARD3, USB, { ref: "M1", part: "module/mq2" }]), "level.overdrive")!.severity).toBe("stop");
  });
  it("two boards wired to each other are judged both ways", () => {
    const p = plan(
      [BOARD5, { ref: "B2", part: "board/rp2040-forty" }, USB, { ref: "S2", part: "supply/usb-port" }],
      [
        ["B1.D7", "B2.GP5"],
        ["B1.GND", "B2.GND"],
      ],
    );
    expect(check(p).find((f) => f.rule === "level.overdrive")).toMatchObject({
      severity: "stop",
      at: ["B1.D7", "B2.GP5"],
    });
    const same = plan(
      [BOARD3, { ref: "B2", part: "board/rp2040-mini" }, USB, { ref: "S2", part: "supply/usb-port" }],
      [
        ["B1.GP7", "B2.GP5"],
        ["B1.GND", "B2.GND"],
      ],
    );
    expect(rules(same)).toEqual([]);
  });
});

describe("supplies and grounds", () => {
  it("several supply pins of one part are one net, second supplies are wired too", () => {
    const p = planned([BOARD3, USB, { ref: "S2", part: "supply/adapter-9v-1a" }, { ref: "M1", part: "module/tb6612" }]);
    expect(to(p, "M1.VM")).toEqual(["S2.9V"]);
    expect(to(p, "M1.VCC")).toEqual(["B1.3V3"]);
    // Three ground pins, one wire.
    expect(["M1.GND", "M1.GND.2", "M1.GND.3"].flatMap((g) => to(p, g))).toHaveLength(1);
    expect(rules(p)).toEqual([]);
  });
  it("a motor behind a driver counts on the driver's supply", () => {
    const parts = [
      BOARD5,
      USB,
      { ref: "S2", part: "supply/adapter-9v-1a" },
      { ref: "M1", part: "module/l298n" },
      { ref: "X1", part: "discrete/motor-dc" },
    ];
    const p = plan(parts, [
      ["X1.1", "M1.OUT1"],
      ["X1.2", "M1.OUT2"],
    ]);
    const limit = circuit(p).power.limits.find((l) => l.ref === "S2")!;
    expect(limit.loads[0]).toMatchObject({ ref: "X1", flow: { idle: 0, typ: 0.2, peak: 1.2 } });
    expect(rules(p)).toContain("fault power.overload");
  });
  it("a regulator set by an option feeds a board", () => {
    const p = plan(
      [
        BOARD3,
        { ref: "S1", part: "supply/adapter-12v-2a" },
        { ref: "M1", part: "module/buck-adjustable", options: { output_V: 5 } },
      ],
      [
        ["S1.12V", "M1.IN+"],
        ["S1.GND", "M1.IN-"],
      ],
    );
    expect(to(p, "M1.OUT+")).toEqual(["B1.VSYS"]);
    expect(circuit(p).netlist.netOf("M1:out").V).toEqual({ min: 4.85, typ: 5, max: 5.15 });
    expect(rules(p)).toEqual([]);
    const high = { ...p, parts: p.parts.map((x) => (x.ref === "M1" ? { ...x, options: { output_V: 9 } } : x)) };
    expect(rules(high)).toContain("stop power.range");
  });
  it("a step-up converter can't go below its input", () => {
    const p = make(
      [
        { ref: "S1", part: "supply/bench", options: { output_V: 9 } },
        { ref: "M1", part: "module/boost-adjustable", options: { output_V: 5 } },
      ],
      [
        ["S1.+", "M1.IN+"],
        ["S1.-", "M1.IN-"],
      ],
    );
    expect(circuit(p).netlist.netOf("M1:out").V!.typ).toBe(9);
  });
  it("a bare chip gets every supply and ground leg, its capacitor and its reset pull-up", () => {
    const p = planned([
      { ref: "U1", part: "chip/atmega328p-dip28" },
      { ref: "S1", part: "supply/usb-charger" },
      { ref: "D1", part: "discrete/led-red" },
    ]);
    for (const leg of ["VCC", "AVCC"]) expect(to(p, `U1.${leg}`)).toContain("S1.5V");
    for (const leg of ["GND", "GND.2"]) expect(to(p, `U1.${leg}`)).toContain("S1.GND");
    const around = [...circuit(p).netlist.expanded.instances.values()].filter((i) => i.inserted?.by === "U1");
    expect(around.map((i) => i.inserted!.key).sort()).toEqual(["decoupling", "pullUp"]);
    expect(rules(p)).toEqual([]);
  });
  it("a board without USB is fed at the pin that takes the supply's voltage", () => {
    const feed = (part: string) => to(planned([BOARD5, { ref: "S1", part }]), part.includes("9v") ? "S1.9V" : "S1.5V");
    expect(feed("supply/adapter-9v-1a")).toEqual(["B1.VIN"]);
    expect(feed("supply/adapter-5v-2a")).toEqual(["B1.5V"]);
    expect(to(planned([BOARD3, { ref: "S1", part: "supply/lipo-1s" }]), "S1.+")).toEqual(["B1.VSYS"]);
  });
});

describe("isolation", () => {
  const parts = [
    BOARD3,
    USB,
    { ref: "S2", part: "supply/bench", options: { output_V: 5 } },
    { ref: "M1", part: "module/hc05" },
    { ref: "U1", part: "module/isolator-2ch" },
  ];
  const links: [string, string][] = [
    ["M1.RX", "U1.OUTA"],
    ["M1.TX", "U1.INB"],
    ["U1.VCC2", "M1.VCC"],
    ["U1.GND2", "S2.-"],
    ["M1.VCC", "S2.+"],
    ["M1.GND", "S2.-"],
  ];
  it("signals are planned through the isolator, and the grounds stay apart without a complaint", () => {
    const p = plan(parts, links, {
      isolated: [
        ["B1", "U1.gnd"],
        ["U1.far", "M1"],
      ],
    });
    expect(to(p, "U1.INA")[0]).toMatch(/^B1\.GP/);
    expect(to(p, "U1.OUTB")[0]).toMatch(/^B1\.GP/);
    expect(binding(p, "M1", "RX")).toMatchObject({ host: "B1", isolated: true });
    expect(to(p, "U1.GND1")).toEqual(["B1.GND"]);
    const rulesSeen = rules(p).filter((r) => r.includes("ground"));
    expect(rulesSeen).toEqual([]);
  });
  it("one wire between the grounds undoes it", () => {
    const p = plan(parts, [...links, ["S2.-", "B1.GND"]], {
      isolated: [
        ["B1", "U1.left"],
        ["M1", "U1.right"],
      ],
    });
    const f = check(p).filter((x) => x.rule === "power.ground-joined");
    expect(f.map((x) => x.at.join())).toEqual(["B1,M1", "U1"]);
    expect(f[0]!.severity).toBe("stop");
  });
  it("without an isolator, parts that talk must share ground", () => {
    const p = make(
      [BOARD5, USB, ADAPTER, { ref: "M1", part: "module/hc-sr04" }],
      [
        ["S1.USB", "B1.USB"],
        ["M1.VCC", "S2.5V"],
        ["M1.GND", "S2.GND"],
        ["M1.TRIG", "B1.D4"],
        ["M1.ECHO", "B1.D2"],
      ],
    );
    expect(rules(p)).toContain("fault power.ground-not-common");
  });
});

describe("connectors with named pins", () => {
  const plug = (pins: object) => ({ ref: "J1", part: "connector/din6", options: { pins } });
  it("named pins are wired by role, under either name, and an unused one stays free", () => {
    const pins = {
      "1": { name: "DATA", role: "digital-in", V: 3.3 },
      "3": { role: "ground" },
      "4": { name: "PWR", role: "supply-out", V: 5, mA: 50 },
      "2": null,
    };
    const p = plan([BOARD3, USB, plug(pins)], [["J1.DATA", "B1.GP7"]]);
    expect(to(p, "J1.1")).toEqual(["B1.GP7"]);
    expect(to(p, "J1.3")).toEqual(["B1.GND"]);
    expect(to(p, "J1.4")).toEqual(["B1.VBUS"]);
    expect(to(p, "J1.2")).toEqual([]);
    expect(rules(p)).toEqual([]);
    expect(
      circuit(p)
        .power.limits.find((l) => l.ref === "S1")!
        .loads.find((l) => l.ref === "J1")!.flow.peak,
    ).toBeCloseTo(0.05);
  });
  it("a 5 V device on a 3.3 V board is a stop", () => {
    const p = planned([BOARD3, USB, plug({ "1": { role: "digital-in", V: 5 }, "3": { role: "ground" } })]);
    expect(find(p, "level.overdrive")).toMatchObject({ severity: "stop" });
  });
  it("any header from 1 to 40 pins exists, and its bus roles make a bus", () => {
    const p = planned([
      BOARD3,
      USB,
      {
        ref: "J1",
        part: "connector/header-7",
        options: {
          pins: {
            "1": { name: "TX", role: "uart.tx", V: 3.3 },
            "2": { role: "uart.rx", V: 3.3 },
            "7": { role: "ground" },
          },
        },
      },
    ]);
    expect(binding(p, "J1", "1")!.need).toEqual({ kind: "uart", role: "rx" });
    expect(rules(p)).toEqual([]);
    expect(catalogue.get("connector/header-41")).toBeUndefined();
    expect(catalogue.get("connector/header-40")!.pins).toHaveLength(40);
    expect(catalogue.get("connector/header-n")).toBeUndefined();
  });
  it("wrong names and roles are refused with their place", () => {
    const bad = (pins: object) => () => make([BOARD3, plug(pins)]);
    expect(bad({ "9": { role: "ground" } })).toThrow(/there is no pin .{1,4}9/);
    expect(bad({ "1": { role: "magic" } })).toThrow(/pin 1\/role/);
    expect(bad({ "1": { name: "a b c" } })).toThrow(/pin 1\/name/);
  });
});

describe("what the board is to be", () => {
  it("a MIDI instrument needs native USB", () => {
    expect(find(make([{ ...BOARD5, options: { usbRole: "midi" } }, USB]), "board.native-usb")).toMatchObject({
      severity: "fault",
    });
    expect(
      find(
        make([{ ref: "B1", part: "board/atmega32u4-compact", options: { usbRole: "midi" } }, USB]),
        "board.native-usb",
      ),
    ).toBeUndefined();
    expect(find(make([{ ...BOARD5, options: { radio: true } }, USB]), "board.native-usb")).toBeUndefined();
  });
  it("parts that hold the shared data line are told", () => {
    const p = plan([
      BOARD3,
      USB,
      { ref: "M1", part: "module/sd-shifted" },
      { ref: "M2", part: "module/bme280" },
      { ref: "M3", part: "module/max6675" },
    ]);
    expect(find(p, "spi.miso-held")).toMatchObject({ severity: "fault", at: ["M1.MISO"] });
    expect(find(plan([BOARD3, USB, { ref: "M1", part: "module/sd-shifted" }]), "spi.miso-held")).toBeUndefined();
  });
  it("a clock module's second chip counts as an address", () => {
    const p = plan([BOARD5, USB, { ref: "M1", part: "module/ds1307" }]);
    const eeprom = make(
      [...p.parts, { ref: "M2", part: "module/at24c32", options: { address: "0x50" } }],
      [
        ...p.links.map((l): [string, string] => [l.from, l.to]),
        ["M2.SDA", to(p, "M1.SDA")[0]!],
        ["M2.SCL", to(p, "M1.SCL")[0]!],
      ],
    );
    expect(find(eeprom, "i2c.address-clash")!.message).toContain("0x50");
  });
});
