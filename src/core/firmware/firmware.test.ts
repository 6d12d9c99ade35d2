import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { circuitOf } from "../circuit";
import { BOARD3, BOARD5, CABLE, catalogue, fountain, make, planned, USB } from "../testing";
import { assign } from "../plan/assign";
import { boardsWithout, codeText, identifier, pinConstants, TARGETS, targetById } from ".";
import { DEVICES, wired } from "./devices";
import { lets } from "./devices/stages";
import { does } from "./does";
import { driverParts, ownLight } from "./pins";
import { isReserved } from "./reserved";

/** A red light for every label. */
const lamps = (labels: readonly string[]) =>
  labels.map((label, i) => ({ ref: `LED${i + 1}`, part: "discrete/led-red", label }));

describe("names in code", () => {
  it("makes a legal identifier from anything", () => {
    fc.assert(fc.property(fc.string(), (s) => /^[A-Za-z_][A-Za-z0-9_]*$/.test(identifier(s, "X1"))));
    expect(identifier("7 lights", "M1")).toBe("P_7_lights");
  });
  it("never lets a label leave its comment or string", () => {
    fc.assert(fc.property(fc.string({ unit: "binary" }), (s) => !/[\n\r"\\]|\*\/|\?\?/.test(codeText(s))));
  });
});

describe("pin constants", () => {
  const c = circuitOf(
    planned([
      BOARD5,
      USB,
      { ref: "M2", part: "module/ssd1306-i2c", label: "Display" },
      { ref: "D1", part: "discrete/led-red", label: "Lamp" },
      { ref: "D2", part: "discrete/led-red", label: "Lamp" },
      { ref: "M1", part: "module/hc-sr04", label: "Echo" },
    ]),
    catalogue,
  );
  it("have unique names, one for a shared bus line, and the plan's pins", () => {
    const list = pinConstants(c, "B1", "sketch");
    expect(new Set(list.map((k) => k.name)).size).toBe(list.length);
    expect(list.find((k) => k.name === "PIN_I2C0_SDA")).toMatchObject({ hostPin: "A4", code: "A4" });
    expect(list.map((k) => k.name)).toEqual(
      expect.arrayContaining(["PIN_LAMP", "PIN_LAMP_D2", "PIN_ECHO_TRIG", "PIN_ECHO_ECHO"]),
    );
    for (const k of list) expect(c.netlist.bindings.some((b) => b.hostPin === k.hostPin)).toBe(true);
  });
});

describe("labels that read like a board's own names", () => {
  it("never become a constant that a core has taken", () => {
    const labels = ["A0", "D13", "GP4", "GPIO21", "SPI MOSI", "Wire SDA", "LED", "Serial TX", "DAC0", "PB0"];
    const c = circuitOf(planned([{ ref: "B1", part: "board/atmega2560-long" }, USB, ...lamps(labels)]), catalogue);
    const names = pinConstants(c, "B1", "sketch").map((k) => k.name);
    expect(names).toHaveLength(labels.length);
    expect(new Set(names).size).toBe(names.length);
    for (const n of names) expect(n).toMatch(/^[A-Z0-9_]+_PIN$/);
  });
});

describe("pins that a program drives unasked", () => {
  const links = (b: string): [string, string][] => [
    ["S1.USB", "B1.USB"],
    ["B1.D13", b],
  ];
  const two = [BOARD5, { ...BOARD5, ref: "B2" }, USB];
  it("are bare: a wire by hand to another board, to a rail or into a resistor keeps its own light dark", () => {
    const light = (parts: object[], list: [string, string][]) =>
      ownLight(circuitOf(make(parts as never[], list), catalogue), "B1", "sketch");
    expect(light(two, [["S1.USB", "B1.USB"]])).toEqual({ code: "13", lit: 1 });
    expect(light(two, links("B2.D7"))).toBeNull();
    expect(light(two, links("B1.GND"))).toBeNull();
    expect(light([BOARD5, USB, { ref: "R1", part: "discrete/resistor" }], links("R1.1"))).toBeNull();
  });
  it("and so is the pin that a bare chip's console leaves from", () => {
    const chip = { ref: "B1", part: "chip/attiny85-dip8" };
    const pins = (list: [string, string][]) =>
      targetById("avr-c")!
        .files(circuitOf(make([chip, { ref: "R1", part: "discrete/resistor" }], list), catalogue))
        .find((f) => f.path === "pins.h")!.text;
    expect(pins([])).toContain("PIN_CONSOLE B, 3");
    expect(pins([["B1.PB3", "R1.1"]])).toContain("PIN_CONSOLE B, 4");
  });
});

describe("what a program does with its parts", () => {
  it("is told for every part, with how it is proven, or why it is left out", () => {
    const c = circuitOf(
      planned([
        BOARD5,
        USB,
        { ref: "M1", part: "module/aht20", label: "Air" },
        { ref: "SW1", part: "discrete/button", label: "Go" },
        { ref: "D1", part: "discrete/led-red", label: "Lamp" },
        { ref: "M2", part: "module/relay-1", label: "Pump" },
      ]),
      catalogue,
    );
    const list = new Map(does(c, "sketch").map((d) => [d.ref, d]));
    expect(list.get("M1")).toMatchObject({ worked: true, proof: "proves itself" });
    expect(list.get("M1")!.starter).toContain("taken back");
    expect(list.get("SW1")!.proof).toContain("press it");
    expect(list.get("D1")!.proof).toContain("Did it blink");
    expect(list.get("M2")!.starter).toBe("When Go is pressed, Pump is on");
    const kl26 = circuitOf(
      make(
        [
          { ref: "B1", part: "board/mkl26z64-compact" },
          { ref: "M1", part: "module/ws2812b-ring-16" },
        ],
        [["M1.DIN", "B1.D2"]],
      ),
      catalogue,
    );
    expect(does(kl26, "sketch")).toMatchObject([{ worked: false, starter: expect.stringContaining("MKL26Z64") }]);
  });
});

describe("targets", () => {
  it("say why they do not fit", () => {
    const five = circuitOf(planned([BOARD5, USB]), catalogue);
    expect(targetById("micropython")!.unfit(five)).toContain("too little memory");
    for (const t of TARGETS) expect(t.unfit(circuitOf(make([USB]), catalogue))).toContain("no board");
    expect(targetById("sketch")!.unfit(circuitOf(planned([BOARD3, USB]), catalogue))).toBeNull();
  });
  it("write no code for a part that is only half wired", () => {
    const half = make(
      [BOARD5, USB, { ref: "M1", part: "module/hc-sr04", label: "Echo" }],
      [
        ["S1.USB", "B1.USB"],
        ["M1.TRIG", "B1.D8"],
      ],
    );
    const text = targetById("sketch")!
      .files(circuitOf(half, catalogue))
      .map((f) => f.text)
      .join("");
    expect(text).not.toContain("echoTime");
    expect(text).toContain("PIN_ECHO");
  });
  it("tell the board which pins a bus sits on when they are not the usual ones", () => {
    const p = make(
      [BOARD3, USB, { ref: "M2", part: "module/ssd1306-i2c" }],
      [
        ["S1.USB", "B1.USB"],
        ["M2.VCC", "B1.3V3"],
        ["M2.GND", "B1.GND"],
        ["M2.SDA", "B1.GP2"],
        ["M2.SCL", "B1.GP3"],
      ],
    );
    const ino = targetById("sketch")!
      .files(circuitOf(p, catalogue))
      .find((f) => f.path.endsWith("bringup.ino"))!.text;
    expect(ino).toContain("Wire1.setSDA(PIN_I2C1_SDA);");
    expect(ino).toContain("Wire1.begin();");
  });
  it("work a load's transistor under the load's name", () => {
    const c = circuitOf(fountain(), catalogue);
    expect(pinConstants(c, "B1", "sketch")).toMatchObject([{ name: "PIN_FOUNTAIN", hostPin: "D7" }]);
    const text = targetById("sketch")!
      .files(c)
      .map((f) => f.text)
      .join("");
    expect(text).toContain("pinMode(PIN_FOUNTAIN, OUTPUT)");
  });
});

describe("either leg may face the board", () => {
  const files = (target: string, links: [string, string][]) => {
    const p = make(
      [
        BOARD5,
        USB,
        { ref: "D1", part: "discrete/led-red", label: "Lamp", companions: { seriesResistor: { ohm: 330 } } },
        { ref: "SW1", part: "discrete/button", label: "Key", companions: { pullUp: "internal" } },
      ],
      [CABLE, ...links],
    );
    const t = targetById(target)!;
    return t
      .files(circuitOf(p, catalogue))
      .map((f) => f.text)
      .join("\n");
  };
  it("a light from the supply to the pin is lit by a low, and starts dark", () => {
    const sunk = files("sketch", [
      ["D1.A", "B1.5V"],
      ["D1.K", "B1.D8"],
    ]);
    expect(sunk).toMatch(/digitalWrite\(PIN_LAMP, HIGH\);\s*pinMode\(PIN_LAMP, OUTPUT\)/);
    expect(sunk).toContain("lamp_on ? LOW : HIGH");
    const driven = files("sketch", [
      ["D1.A", "B1.D8"],
      ["D1.K", "B1.GND"],
    ]);
    expect(driven).toContain("lamp_on ? HIGH : LOW");
    expect(driven).not.toMatch(/digitalWrite\(PIN_LAMP, HIGH\);\s*pinMode/);
  });
  it.each([
    ["SW1.1", "SW1.2"],
    ["SW1.2", "SW1.1"],
  ])("a button with %s at the pin reads pressed where its other leg leads", (near, far) => {
    const toGround = files("sketch", [
      [near, "B1.D8"],
      [far, "B1.GND"],
    ]);
    expect(toGround).toMatch(/YL1 gpio SW1 pin=D8[\s\S]*want=1/);
    const toSupply = files("sketch", [
      [near, "B1.D8"],
      [far, "B1.5V"],
    ]);
    expect(toSupply).toMatch(/YL1 gpio SW1 pin=D8[\s\S]*want=0/);
  });
});

describe("labels that are words of a program already", () => {
  /** Names in code that do not come from a part's label, lower case: what a label must not become. */
  const own = (text: string, ids: readonly string[]) =>
    text
      .replace(/\/\/.*$/gm, "")
      .replace(/#(?!define).*$/gm, "")
      .replace(/"(?:[^"\\\n]|\\.)*"/g, '""')
      // Attributes and named arguments are names of their own.
      .replace(/\.\w+|\b\w+=(?=[^=\s])/g, " ")
      .split(/\W+/)
      .filter((w) => /^[A-Za-z_]/.test(w) && w === w.toLowerCase() && !/^x[\da-f]{2,4}$/.test(w))
      .filter((w) => !ids.some((id) => w === id || w.startsWith(`${id}_`)));

  it("are all known, as far as our own programs use them", () => {
    const talking = catalogue.parts.filter((p) => p.bringup && !p.board).map((p) => p.id);
    const groups = Array.from({ length: Math.ceil(talking.length / 4) }, (_, i) => talking.slice(4 * i, 4 * i + 4));
    const unknown = new Set<string>();
    // What a device works out stays inside its own function, which speaks of no other part.
    const inside = new Set(
      DEVICES.flatMap((k) =>
        k.cases.flatMap((w) => [...lets(k.of(wired(w))), ...k.of(wired(w)).out.map((q) => q.name)]),
      ),
    );
    for (const board of ["board/atmega2560-long", BOARD3.part, "board/linux-forty"])
      for (const group of groups) {
        const parts = ["discrete/button", ...group].map((part, i) => ({ ref: `M${i + 1}`, part, label: `Qz${i}` }));
        const { project } = assign(
          make([{ ref: "B1", part: board, sleep: { every_s: 900, awake_s: 20 } }, USB, ...parts]),
          catalogue,
        );
        const c = circuitOf(project, catalogue);
        const ids = parts.map((_, i) => `qz${i}`);
        for (const t of TARGETS)
          if (!t.unfit(c))
            for (const f of t.files(c).filter((f) => !/\.md$|^lib\/|^(machine|ticks|onewire|dht)\.py$/.test(f.path)))
              for (const w of own(f.text, ids)) if (!isReserved(w) && !inside.has(w)) unknown.add(w);
      }
    expect([...unknown].sort()).toEqual([]);
  });

  it("get the part's reference in front; others stay as they are, each name once", () => {
    const labels = ["Time", "Now", "Loop", "Int", "print", "Lambda", "Map", "Lamp", "Lamp", "Lamp on", "Door"];
    const c = circuitOf(planned([{ ref: "B1", part: "board/atmega2560-long" }, USB, ...lamps(labels)]), catalogue);
    const ids = driverParts(c, "B1", "sketch", (b) => b).map((p) => p.id);
    expect(ids).toEqual([
      "led1_time",
      "led2_now",
      "led3_loop",
      "led4_int",
      "led5_print",
      "led6_lambda",
      "led7_map",
      "lamp",
      "led9_lamp",
      "led10_lamp_on",
      "door",
    ]);
  });

  it("stay apart whatever people write", () => {
    const label = fc.oneof(
      fc.constantFrom("Lamp", "lamp on", "LAMP!", "time", "led2 lamp", "led2_lamp", "_", "", "7", "Öl", "loop_", "if"),
      fc.string({ maxLength: 12 }),
    );
    fc.assert(
      fc.property(fc.array(label, { minLength: 2, maxLength: 6 }), (labels) => {
        const c = circuitOf(
          make(
            [
              { ref: "B1", part: "board/atmega2560-long" },
              ...labels.map((l, i) => ({
                ref: `LED${i + 1}`,
                part: "discrete/led-red",
                ...(l.trim() && { label: l }),
              })),
            ],
            labels.map((_, i) => [`LED${i + 1}.A`, `B1.D${22 + i}`]),
          ),
          catalogue,
        );
        const ids = driverParts(c, "B1", "sketch", (b) => b).map((p) => p.id);
        expect(ids).toHaveLength(labels.length);
        for (const id of ids) {
          expect(id).toMatch(/^[a-z_][a-z0-9_]*$/);
          expect(isReserved(id)).toBe(false);
          expect(ids.filter((x) => x === id || x.startsWith(`${id}_`))).toEqual([id]);
        }
      }),
      { numRuns: 200 },
    );
  });
});

describe("a bus's clock", () => {
  const parts = [
    { ref: "M1", part: "module/bme280", label: "Air" },
    { ref: "M2", part: "module/ssd1306-i2c", label: "Display" },
  ];
  const texts = (board: typeof BOARD3, id: string, clock_Hz?: number) => {
    const p = planned([board, USB, ...parts]);
    const c = circuitOf({ ...p, buses: clock_Hz ? [{ host: "B1", bus: "i2c0", clock_Hz }] : [] }, catalogue);
    return targetById(id)!
      .files(c)
      .map((f) => f.text)
      .join("\n");
  };
  it("is the one that the checks reckon with: the usual one, or the chosen one", () => {
    expect(texts(BOARD3, "micropython")).toContain("freq=100000)");
    expect(texts(BOARD3, "micropython", 400_000)).toContain("freq=400000)");
    expect(texts(BOARD5, "sketch")).not.toContain("setClock");
    expect(texts(BOARD5, "sketch", 400_000)).toContain("Wire.begin();\n  Wire.setClock(400000);");
    expect(texts(BOARD5, "sketch", 50_000)).toContain("Wire.setClock(50000);");
  });
  it("is one that the controller can make: a divider out of range would wrap to a far faster one", () => {
    expect(texts(BOARD5, "sketch", 5)).toContain("Wire.setClock(30419);");
    expect(texts(BOARD3, "micropython", 5)).toContain("freq=10000)");
    expect(texts(BOARD3, "micropython", 123_456.7)).toContain("freq=123457)");
  });
  it("is never more than the slowest part takes", () => {
    expect(texts(BOARD5, "sketch", 1_000_000)).toContain("Wire.setClock(400000);");
    expect(texts(BOARD3, "micropython", 1_000_000)).toContain("freq=400000)");
  });
});

describe("several boards", () => {
  const two = (b1: string, b2: string) =>
    circuitOf(
      planned([
        { ref: "B1", part: b1, label: "First" },
        { ref: "S1", part: "supply/usb-port", label: "USB" },
        { ref: "B2", part: b2, label: "Second" },
        { ref: "D1", part: "discrete/led-red", label: "Lamp", host: "B1" },
        { ref: "D2", part: "discrete/led-red", label: "Night light", host: "B2" },
      ]),
      catalogue,
    );
  const paths = (c: ReturnType<typeof two>, id: string) =>
    targetById(id)!
      .files(c)
      .map((f) => f.path);

  it("each get what fits them, whichever stands first", () => {
    for (const [b1, b2, python] of [
      ["board/atmega328p-long", "board/rp2040-forty", "B2"],
      ["board/rp2040-forty", "board/atmega328p-long", "B1"],
    ] as const) {
      const c = two(b1, b2);
      expect(targetById("micropython")!.unfit(c)).toBeNull();
      expect(paths(c, "micropython").every((p) => p.startsWith(`${python}/`))).toBe(true);
      expect(paths(c, "micropython")).toContain(`${python}/main.py`);
      expect(
        targetById("micropython")!
          .without(c)
          .map((w) => w.host),
      ).toEqual([python === "B1" ? "B2" : "B1"]);
      expect(paths(c, "sketch")).toEqual(expect.arrayContaining(["B1/starter/starter.ino", "B2/starter/starter.ino"]));
      const of = (host: string) =>
        targetById("sketch")!
          .files(c)
          .find((f) => f.path === `${host}/starter/starter.ino`)!.text;
      expect(of("B1")).toContain("lamp_on");
      expect(of("B2")).not.toContain("lamp_on");
      expect(of("B2")).toContain("night_light_on");
      expect(boardsWithout(c)).toEqual([]);
    }
  });

  it("every board and chip of the catalogue has at least one", () => {
    for (const p of catalogue.parts.filter((x) => x.board)) {
      const c = circuitOf(make([{ ref: "B1", part: p.id }]), catalogue);
      expect(boardsWithout(c), p.id).toEqual([]);
    }
  });

  it("a board that no target knows is named with the reason, alone and beside another", () => {
    const base = catalogue.get("board/stm32f411-forty")!;
    const unknown = { ...base, id: "board/other", board: { ...base.board!, chip: "QX900", targets: {} } };
    const known = { customParts: [unknown] };
    const alone = circuitOf(make([{ ref: "B1", part: unknown.id }], [], known), catalogue);
    expect(boardsWithout(alone)).toMatchObject([{ host: "B1", why: expect.stringContaining(unknown.board.chip) }]);
    for (const t of TARGETS) {
      expect(t.unfit(alone)).toContain(unknown.board.chip);
      expect(t.files(alone)).toEqual([]);
    }
    const beside = circuitOf(
      make(
        [
          { ref: "B1", part: unknown.id },
          { ...BOARD3, ref: "B2" },
        ],
        [],
        known,
      ),
      catalogue,
    );
    expect(boardsWithout(beside).map((b) => b.host)).toEqual(["B1"]);
    expect(paths(beside, "micropython").every((p) => p.startsWith("B2/"))).toBe(true);
  });
});
