import { describe, expect, it } from "vitest";
import { brightnessCap, findings, verdict } from ".";
import { circuitOf } from "../circuit";
import { BOARD3, BOARD5, CABLE, catalogue, check, find, fixed, make, planned, rules, USB } from "../testing";

const ECHO = { ref: "M1", part: "module/hc-sr04" };
const LED = { ref: "D1", part: "discrete/led-red" };
const AIR = { ref: "M1", part: "module/bme280" };
const SHOW = { ref: "M2", part: "module/ssd1306-i2c" };
const ADAPTER = { ref: "S2", part: "supply/adapter-5v-2a" };
const strip = (options: object = {}) => ({ ref: "M3", part: "module/ws2812b-strip", options });

const echo5: [string, string][] = [
  CABLE,
  ["M1.VCC", "B1.5V"],
  ["M1.GND", "B1.GND"],
  ["M1.TRIG", "B1.D8"],
  ["M1.ECHO", "B1.D2"],
];

describe("the traps", () => {
  it("echo at 5 V into a 3.3 V board is a stop, and the divider mends it", () => {
    const p = planned([BOARD3, USB, ECHO]);
    const f = find(p, "level.overdrive")!;
    expect(f.severity).toBe("stop");
    expect(f.at).toEqual(["M1.ECHO", "B1.GP1"].map((x) => (x.startsWith("B1") ? expect.stringMatching(/^B1\.GP/) : x)));
    // USB may be 5.25 V; the pin takes its own lowest supply 3.2 V + 0.3 V.
    expect(f.evidence.highest_V).toBeCloseTo(5.25, 2);
    expect(f.evidence.ceiling_V).toBeCloseTo(3.5, 2);
    const q = fixed(p, "level.overdrive", "divider");
    expect(rules(q)).toEqual([]);
    const c = circuitOf(q, catalogue);
    const v = c.levels.find((x) => x.driver.ref === "M1")!;
    expect(v.highest_V).toBeLessThan(v.ceiling);
    expect(v.marginHigh).toBeGreaterThan(0.2);
  });
  it("the same echo on a 5 V board is quiet", () => {
    expect(rules(make([BOARD5, USB, ECHO], echo5))).toEqual([]);
  });
  it("3.3 V data into a 5 V strip falls short of 0.7·V; the buffer mends it", () => {
    const p = planned([BOARD3, USB, ADAPTER, strip({ pixels: 24, brightness: 0.4 })]);
    const f = find(p, "level.low-high")!;
    expect(f.severity).toBe("fault");
    expect(f.evidence.VIH_V).toBeCloseTo(0.7 * 5.25, 3);
    expect(f.evidence.high_V).toBeCloseTo(3.2 - 0.1, 2);
    expect(rules(fixed(p, "level.low-high", "buffer"))).toEqual([]);
  });
  it("5 V data into the strip is quiet", () => {
    expect(rules(planned([BOARD5, USB, ADAPTER, strip({ pixels: 24, brightness: 0.4 })]))).toEqual([]);
  });
  it("3.3 V trigger into a TTL input (VIH 2.0 V) is quiet: numbers decide, not nominal voltages", () => {
    const p = planned([BOARD3, USB, ECHO]);
    const c = circuitOf(p, catalogue);
    const v = c.levels.find((x) => x.receiver.pin === "TRIG")!;
    expect(v.marginHigh).toBeCloseTo(3.1 - 2.0, 2);
    expect(check(p).filter((f) => f.at.includes("M1.TRIG"))).toEqual([]);
  });
  it("the stricter house rule speaks up about it", () => {
    const p = planned([BOARD3, USB, ECHO], { houseRules: { levelPolicy: "same-nominal" } });
    expect(check(p).some((f) => f.rule === "level.thin-margin" && f.at.includes("M1.TRIG"))).toBe(true);
  });
  it("a clock's pull-ups at 5 V overdrive a 3.3 V sensor on the same bus; feeding it 3.3 V mends it", () => {
    const links: [string, string][] = [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M2.VCC", "B1.VBUS"],
      ...["M1", "M2"].flatMap((m): [string, string][] => [
        [`${m}.GND`, "B1.GND"],
        [`${m}.SDA`, "B1.GP4"],
        [`${m}.SCL`, "B1.GP5"],
      ]),
    ];
    const p = make([BOARD3, USB, AIR, { ref: "M2", part: "module/ds3231" }], links);
    const f = find(p, "level.overdrive")!;
    expect(f.severity).toBe("stop");
    expect(f.message).toContain("pull-up");
    expect(rules(fixed(p, "level.overdrive", "logic-supply"))).toEqual([]);
  });
});

describe("lights and currents", () => {
  const wired: [string, string][] = [CABLE, ["D1.A", "B1.D7"], ["D1.K", "B1.GND"]];
  it("a bare LED is a stop; the fix puts the computed resistor in", () => {
    const p = make([BOARD5, USB, LED], wired);
    expect(rules(p)).toEqual(["stop led.no-resistor"]);
    const q = fixed(p, "led.no-resistor", "series-resistor");
    // (5 − 2 − 8 mA · 25 Ω) / 8 mA = 350 Ω, next up 390 Ω.
    expect(q.parts[2]!.companions).toEqual({ seriesResistor: { ohm: 390 } });
    expect(rules(q)).toEqual([]);
  });
  it("a resistor of the person's own counts the same", () => {
    const r = { ref: "R1", part: "discrete/resistor", options: { resistance_ohm: 470 } };
    const p = make([BOARD5, USB, LED, r], [CABLE, ["D1.A", "R1.2"], ["R1.1", "B1.D7"], ["D1.K", "B1.GND"]]);
    expect(rules(p)).toEqual([]);
    expect(circuitOf(p, catalogue).netlist.bindings[0]).toMatchObject({ ref: "D1", hostPin: "D7", direct: false });
  });
  it("worst-case current: highest supply, lowest forward voltage, smallest resistor", () => {
    const p = make(
      [BOARD3, USB, { ...LED, companions: { seriesResistor: { ohm: 150 } } }],
      [CABLE, ["D1.A", "B1.GP15"], ["D1.K", "B1.GND"]],
    );
    const led = circuitOf(p, catalogue).leds[0]!;
    expect(led.I!.max).toBeCloseTo((3.4 - 1.8) / (150 * 0.95), 6);
    const f = find(p, "current.pin")!;
    expect(f.severity).toBe("risk");
    expect(f.evidence.worst_mA).toBeCloseTo(11.2, 1);
  });
  it("over the absolute maximum it is a stop, a larger resistor is quiet; a drive strength is no absolute maximum", () => {
    const at = (board: object, pin: string, ohm: number) =>
      make(
        [board, USB, { ...LED, companions: { seriesResistor: { ohm } } }],
        [CABLE, ["D1.A", `B1.${pin}`], ["D1.K", "B1.GND"]],
      );
    const imx = { ref: "B1", part: "board/imxrt1062-compact" };
    expect(find(at(imx, "D7", 68), "current.pin")!.severity).toBe("stop");
    expect(rules(at(imx, "D7", 470))).toEqual([]);
    expect(find(at(BOARD3, "GP15", 68), "current.pin")!.severity).toBe("risk");
  });
});

describe("pins", () => {
  const led = (pin: string) =>
    make(
      [BOARD5, USB, { ...LED, companions: { seriesResistor: { ohm: 390 } } }],
      [CABLE, ["D1.A", `B1.${pin}`], ["D1.K", "B1.GND"]],
    );
  it("the console pins are a risk and the fix moves the wire", () => {
    const p = led("D1");
    expect(rules(p)).toEqual(["risk pin.usb-serial"]);
    const q = fixed(p, "pin.usb-serial", "move-pin");
    expect(rules(q)).toEqual([]);
  });
  it("the on-board light is only a note", () => {
    expect(rules(led("D13"))).toEqual([]);
    expect(rules(led("D13"), "note")).toEqual(["note board.driver", "note pin.onboard"]);
  });
  it("reset and doubled pins are refused", () => {
    expect(rules(led("RST"))).toContain("stop pin.reset");
    expect(rules(led("SDA"))).toContain("stop pin.reserved");
  });
  it("I2C on the wrong pins is a fault", () => {
    const p = make(
      [BOARD3, USB, AIR],
      [CABLE, ["M1.VCC", "B1.3V3"], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP6"]],
    );
    expect(rules(p)).toContain("fault pin.capability");
    const split = make(
      [BOARD3, USB, AIR],
      [CABLE, ["M1.VCC", "B1.3V3"], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP7"]],
    );
    expect(find(split, "pin.capability")!.message).toContain("different controllers");
  });
  it("two needs on one pin clash, bus lines do not", () => {
    const p = make([BOARD5, USB, ECHO], [...echo5.slice(0, 4), ["M1.ECHO", "B1.D8"]]);
    const f = find(p, "pin.duplicate")!;
    expect(f.severity).toBe("stop");
    expect(rules(planned([BOARD3, USB, AIR, SHOW]))).toEqual([]);
  });
});

describe("buses", () => {
  it("two displays on one address clash; the strap moves one", () => {
    const p = planned([BOARD3, USB, SHOW]);
    const second = { ref: "M4", part: "module/ssd1306-i2c" };
    const q = make(
      [...p.parts, second],
      [
        ...p.links.map((l): [string, string] => [l.from, l.to]),
        ["M4.VCC", "B1.3V3"],
        ["M4.GND", "B1.GND"],
        ["M4.SDA", p.links.flatMap((l) => (l.from === "M2.SDA" ? l.to : l.to === "M2.SDA" ? l.from : []))[0]!],
        ["M4.SCL", p.links.flatMap((l) => (l.from === "M2.SCL" ? l.to : l.to === "M2.SCL" ? l.from : []))[0]!],
      ],
    );
    expect(rules(q)).toEqual(["fault i2c.address-clash"]);
    expect(rules(fixed(q, "i2c.address-clash", "address-0x3d"))).toEqual([]);
  });
  it("a bus of bare chips has no pull-up, and the fix adds two", () => {
    const bare = { ...structuredClone(catalogue.get("module/bme280")!), id: "module/bare-air", elements: [] };
    const links: [string, string][] = [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M1.GND", "B1.GND"],
      ["M1.SDA", "B1.GP4"],
      ["M1.SCL", "B1.GP5"],
    ];
    const p = make([BOARD3, USB, { ref: "M1", part: "module/bare-air" }], links, { customParts: [bare] });
    expect(rules(p)).toEqual(["fault i2c.pullup-missing"]);
    const q = fixed(p, "i2c.pullup-missing", "pull-up");
    expect(rules(q)).toEqual([]);
    const added = [...circuitOf(q, catalogue).netlist.expanded.instances.values()].filter((i) => i.inserted);
    expect(added.map((i) => i.vars.resistance_ohm)).toEqual([4700, 4700]);
  });
  it("a module without its supply wire is one finding, not two", () => {
    const links: [string, string][] = [CABLE, ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]];
    expect(rules(make([BOARD3, USB, AIR], links))).toEqual(["fault power.no-supply"]);
  });
  it("many modules' pull-ups in parallel ask too much of the part that pulls low", () => {
    const strong = { ...structuredClone(catalogue.get("module/bme280")!), id: "module/strong-air" };
    strong.elements = strong.elements.map((e) => ({ ...e, ohm: 900 }) as (typeof strong.elements)[number]);
    const links: [string, string][] = [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M1.GND", "B1.GND"],
      ["M1.SDA", "B1.GP4"],
      ["M1.SCL", "B1.GP5"],
    ];
    const f = find(
      make([BOARD3, USB, { ref: "M1", part: "module/strong-air" }], links, { customParts: [strong] }),
      "i2c.pullup-strong",
    )!;
    // (3.4 − 0.4) / 3 mA = 1000 Ω
    expect(f.evidence).toMatchObject({ parallel_ohm: 900, least_ohm: 1000 });
  });
});

describe("power", () => {
  const usbStrip = (brightness: number, pixels = 30) =>
    make(
      [
        BOARD5,
        USB,
        { ...strip({ pixels, brightness }), companions: { seriesResistor: { ohm: 330 }, bulkCapacitor: { F: 0.001 } } },
      ],
      [CABLE, ["M3.5V", "B1.5V"], ["M3.GND", "B1.GND"], ["M3.DIN", "B1.D6"]],
    );
  it("30 lights at full white overload USB; the cap is computed and holds", () => {
    const p = usbStrip(1);
    const f = find(p, "power.overload")!;
    // 30 · 60 mA + 60 mA for the board.
    expect(f.evidence.peak_mA).toBeCloseTo(1860, 0);
    expect(f.severity).toBe("stop");
    const q = fixed(p, "power.overload", "brightness");
    // (500 − 60 − 30) / (30 · 59) = 0.2316 → 0.23
    expect(q.parts[2]!.options).toMatchObject({ brightness: 0.23 });
    expect(rules(q)).toEqual([]);
  });
  it("a supply of its own is the other way out", () => {
    const q = fixed(usbStrip(1), "power.overload", "own-supply");
    // 1.8 A of 2 A would leave no room: the larger one.
    expect(q.parts.some((x) => x.part === "supply/adapter-5v-10a")).toBe(true);
    expect(rules(q, "fault")).toEqual([]);
  });
  it("cap formula agrees with the rule at its edge", () => {
    const c = circuitOf(usbStrip(1), catalogue);
    const limit = c.power.limits.find((l) => l.kind === "source")!;
    const cap = brightnessCap(c, limit, "M3")!;
    expect(find(usbStrip(cap), "power.overload")).toBeUndefined();
    expect(find(usbStrip(cap + 0.02), "power.overload")).toBeDefined();
  });
  it("no source, no ground, foreign ground", () => {
    expect(rules(make([BOARD5]))).toEqual(["fault power.no-supply"]);
    expect(rules(fixed(make([BOARD5]), "power.no-supply", "usb-port"))).toEqual([]);
    const noGround = make(
      [BOARD5, USB, ECHO],
      echo5.filter(([a]) => a !== "M1.GND"),
    );
    expect(rules(noGround)).toEqual(["fault power.no-ground"]);
    expect(rules(fixed(noGround, "power.no-ground", "wire-up"))).toEqual([]);
    const apart = make(
      [BOARD5, USB, ADAPTER, ECHO],
      [CABLE, ["M1.VCC", "S2.5V"], ["M1.GND", "S2.GND"], ["M1.TRIG", "B1.D8"], ["M1.ECHO", "B1.D2"]],
    );
    expect(rules(apart)).toEqual(["fault power.ground-not-common"]);
    // With a ground in common the separate supply itself is what is left to know.
    expect(rules(fixed(apart, "power.ground-not-common", "join"))).toEqual([
      "risk level.backfeed",
      "risk level.backfeed",
    ]);
  });
  it("5 V into a 3.3 V sensor is a stop and the other rail mends it", () => {
    const p = make(
      [BOARD3, USB, AIR],
      [CABLE, ["M1.VCC", "B1.VBUS"], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]],
    );
    expect(find(p, "power.range")!.severity).toBe("stop");
    expect(rules(fixed(p, "power.range", "other-rail"))).toEqual([]);
  });
  it("supply joined to ground is a stop", () => {
    const p = make([BOARD5, USB], [CABLE, ["B1.5V", "B1.GND"]]);
    expect(rules(p)).toContain("stop power.short");
    expect(rules(fixed(p, "power.short", "remove"))).toEqual([]);
  });
});

describe("nets", () => {
  it("an input that nothing drives is a fault, and the fix wires it", () => {
    const p = make(
      [BOARD5, USB, ECHO],
      echo5.filter(([a]) => a !== "M1.TRIG"),
    );
    expect(rules(p)).toEqual(["fault net.undriven"]);
    expect(rules(fixed(p, "net.undriven", "drive"))).toEqual([]);
  });
  it("a button without a pull floats; each house rule has its answer", () => {
    const button = { ref: "SW1", part: "discrete/button" };
    const p = make([BOARD5, USB, button], [CABLE, ["SW1.1", "B1.D4"], ["SW1.2", "B1.GND"]]);
    expect(rules(p)).toEqual(["risk net.floating"]);
    expect(fixed(p, "net.floating", "pull").parts[2]!.companions).toEqual({ pullUp: "internal" });
    for (const buttonPull of ["internal-up", "external-down", "external-up"] as const)
      expect(rules(planned([BOARD5, USB, button], { houseRules: { buttonPull } })), buttonPull).toEqual([]);
    // The same with the bounce smoothed at the contact: a resistor and a capacitor more, and nothing against it.
    for (const buttonPull of ["internal-up", "external-down", "external-up"] as const) {
      const rc = planned([BOARD5, USB, button], { houseRules: { buttonPull, bounce: "rc" } });
      expect(rc.parts[2]!.companions!.filter).toMatchObject({ ohm: 470, pin: "1" });
      expect(rules(rc), `rc ${buttonPull}`).toEqual([]);
    }
  });
  it("two outputs on one net are a stop", () => {
    const two = [BOARD5, USB, ECHO, { ref: "M2", part: "module/hc-sr04" }];
    const p = make(two, [
      ...echo5,
      ["M2.VCC", "B1.5V"],
      ["M2.GND", "B1.GND"],
      ["M2.TRIG", "B1.D7"],
      ["M2.ECHO", "M1.ECHO"],
    ]);
    expect(rules(p)).toContain("stop net.contention");
  });
});

describe("verdict", () => {
  const words = (p: ReturnType<typeof make>) => {
    const c = circuitOf(p, catalogue);
    return verdict(c, findings(c)).words;
  };
  it("says the one thing that matters first", () => {
    expect(words(make([]))).toBe("Nothing planned yet");
    expect(words(make([BOARD5, USB, LED], [CABLE]))).toBe("Not planned yet: 1 pin open");
    expect(words(make([BOARD5, USB, LED], [CABLE, ["D1.A", "B1.D7"], ["D1.K", "B1.GND"]]))).toBe(
      "Do not power yet: 1 stop",
    );
    expect(words(planned([BOARD5, USB, LED]))).toBe("Ready to wire");
  });
  it("an acknowledged risk leaves the count but not the list; a stop never does", () => {
    const ack = { rule: "net.floating", at: ["SW1.1", "B1.D4"], reason: "bench test only" };
    const p = make(
      [BOARD5, USB, { ref: "SW1", part: "discrete/button" }],
      [CABLE, ["SW1.1", "B1.D4"], ["SW1.2", "B1.GND"]],
      { acknowledged: [ack] },
    );
    expect(find(p, "net.floating")!.acknowledged).toBe("bench test only");
    expect(words(p)).toBe("Ready to wire");
  });
});
