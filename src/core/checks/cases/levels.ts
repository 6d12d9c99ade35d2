import {
  ADAPTER5,
  AVR,
  CABLE,
  changed,
  drop,
  farEnd,
  led,
  make,
  RP,
  planned,
  part,
  R,
  USB,
  CHARGER,
  wire,
  type Case,
  type Links,
} from "./build";

const hall = (ohm: number) =>
  make(
    [RP, USB, part("M1", "module/a3144", {}, { pullUp: null }), R("R1", ohm), R("R2", 10_000)],
    [
      CABLE,
      ["M1.VCC", "B1.VBUS"],
      ["M1.GND", "B1.GND"],
      ["M1.OUT", "R1.1"],
      ["R1.2", "B1.GP6"],
      ["R2.1", "B1.GP6"],
      ["R2.2", "B1.3V3"],
    ],
  );
const strip = (board: object, series: object | null) =>
  make(
    [
      board,
      USB,
      ADAPTER5,
      part(
        "M1",
        "module/ws2812b-strip",
        { pixels: 20, brightness: 0.4 },
        { seriesResistor: series, bulkCapacitor: { F: 0.001 } },
      ),
    ],
    [CABLE, ["M1.5V", "S2.5V"], ["M1.GND", "S2.GND"], ["S2.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
  );
const small = (board: object) =>
  planned([board, USB, part("M1", "module/ws2812b-strip", { pixels: 6, brightness: 0.3 })]);
const echo = (board: object) => planned([board, USB, part("M1", "module/hc-sr04")]);
const one = (board: object, id: string) => planned([board, CHARGER, part("M1", id)]);
const shower: Links = [
  CABLE,
  ["M1.VCC", "B1.3V3"],
  ["M1.GND", "B1.GND"],
  ["M1.SDA", "B1.GP4"],
  ["M1.SCL", "B1.GP5"],
  ["M2.GND", "B1.GND"],
  ["M2.SDA", "B1.GP4"],
  ["M2.SCL", "B1.GP5"],
];
const display = (rail: string) =>
  make([RP, USB, part("M1", "module/bme280"), part("M2", "module/ssd1306-i2c")], [...shower, ["M2.VCC", rail]]);
const button = (pull: "internal" | null) =>
  make(
    [AVR, USB, part("SW1", "discrete/button", {}, { pullUp: pull })],
    [CABLE, ["SW1.1", "B1.D4"], ["SW1.2", "B1.GND"]],
  );
const through = (id: string) =>
  make(
    [
      RP,
      USB,
      part("D1", id, {}, { seriesResistor: null }),
      part("SW1", "discrete/button", {}, { pullUp: "internal" }),
      part("M1", "module/buzzer-active"),
    ],
    [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M1.GND", "B1.GND"],
      ["M1.IO", "B1.GP7"],
      ["SW1.1", "B1.GP4"],
      ["SW1.2", "D1.A"],
      ["D1.K", "B1.GP7"],
    ],
  );
const motor = (pullDown: object | null) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("Q1", "discrete/nmos-irlz44n", {}, { seriesResistor: { ohm: 330 }, pullDown }),
      part("MT1", "discrete/pump-5v", {}, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [CABLE, ["MT1.1", "S2.5V"], ["MT1.2", "Q1.D"], ["Q1.S", "S2.GND"], ["S2.GND", "B1.GND"], ["Q1.G", "B1.D7"]],
  );

/** A pump's gate behind a buffer: the pull-down at the gate can't hold it against the buffer's output. */
const buffered = (pullDown: object | null) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("M1", "module/buffer-74ahct125", {}, { decoupling: { F: 1e-7 }, ...(pullDown && { pullDown }) }),
      part("Q1", "discrete/nmos-irlz44n", {}, { seriesResistor: { ohm: 330 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/pump-5v", {}, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [
      CABLE,
      ["MT1.1", "S2.5V"],
      ["MT1.2", "Q1.D"],
      ["Q1.S", "S2.GND"],
      ["S2.GND", "B1.GND"],
      ["M1.VCC", "S2.5V"],
      ["M1.GND", "S2.GND"],
      ["M1.1A", "B1.D7"],
      ["M1.1Y", "Q1.G"],
      ...["1OE", "2OE", "3OE", "4OE", "2A", "3A", "4A"].map((p): [string, string] => [`M1.${p}`, "S2.GND"]),
    ],
  );

/** Levels and nets: what a driver gives, what a receiver needs, who holds a line. */
export const levelCases: Case[] = [
  {
    rule: "level.low-high",
    severity: "fault",
    says: "3.3 V data into a 5 V strip",
    bad: () => small(RP),
    near: () => small(AVR),
    fix: "buffer",
  },
  {
    rule: "level.low-high",
    severity: "fault",
    says: "a digit display at 5 V on a 3.3 V board",
    bad: () => one(RP, "module/max7219-digits"),
    near: () => one(AVR, "module/max7219-digits"),
    fix: "buffers",
  },
  {
    rule: "level.low-high",
    severity: "fault",
    says: "a 3.3 V sensor on the bus of a 5 V board",
    bad: () => one(AVR, "module/bme280"),
    near: () => one(RP, "module/bme280"),
    fix: "shifter",
  },
  {
    rule: "level.high-low",
    severity: "fault",
    says: "an open-drain output behind too large a series resistor",
    bad: () => hall(4700),
    near: () => hall(470),
  },
  {
    rule: "level.high-low",
    severity: "fault",
    says: "a key read through a light",
    bad: () => through("discrete/led-red"),
    near: () => through("discrete/diode-1n4148"),
  },
  {
    rule: "level.thin-margin",
    severity: "risk",
    says: "the same with a resistor that is nearly right",
    bad: () => hall(2200),
    near: () => hall(470),
  },
  {
    rule: "level.overdrive",
    severity: "stop",
    says: "a 5 V echo into a 3.3 V board",
    bad: () => echo(RP),
    near: () => echo(AVR),
    fix: "divider",
  },
  {
    rule: "level.overdrive",
    severity: "stop",
    says: "a colour display of 3.3 V on a 5 V board",
    bad: () => one(AVR, "module/st7735"),
    near: () => one(RP, "module/st7735"),
    fix: "buffers",
  },
  {
    rule: "level.overdrive",
    severity: "stop",
    says: "a display at 5 V lifts a shared bus of 3.3 V parts",
    bad: () => display("B1.VBUS"),
    near: () => display("B1.3V3"),
    fix: "logic-supply",
  },
  {
    rule: "level.overdrive",
    severity: "stop",
    says: "a 5 V text display on a 3.3 V bus",
    bad: () => planned([RP, USB, part("M1", "module/lcd1602-i2c"), part("M2", "module/sht31")]),
    near: () => planned([RP, USB, part("M1", "module/ssd1306-i2c"), part("M2", "module/sht31")]),
    fix: "shifter",
  },
  {
    rule: "level.backfeed",
    severity: "risk",
    says: "5 V data straight into a strip on its own adapter",
    bad: () => strip(AVR, null),
    near: () => strip(AVR, { ohm: 330 }),
    fix: "series-resistor",
  },
  {
    rule: "net.contention",
    severity: "stop",
    says: "two outputs of a shift register joined",
    bad: () => changed(planned([AVR, USB, part("M1", "module/74hc595")]), wire("M1.QA", "M1.QB")),
    near: () => planned([AVR, USB, part("M1", "module/74hc595")]),
    fix: "remove",
  },
  {
    rule: "net.undriven",
    severity: "fault",
    says: "the trigger of a distance sensor left open",
    bad: () => changed(echo(AVR), drop("M1.TRIG", farEnd(echo(AVR), "M1.TRIG"))),
    near: () => echo(AVR),
    fix: "drive",
  },
  {
    rule: "net.floating",
    severity: "risk",
    says: "a button without a pull",
    bad: () => button(null),
    near: () => button("internal"),
    fix: "pull",
  },
  {
    rule: "net.floating-at-reset",
    severity: "risk",
    says: "a gate without a pull-down",
    bad: () => motor(null),
    near: () => motor({ ohm: 10_000 }),
    fix: "hold",
  },
  {
    rule: "net.floating-at-reset",
    severity: "risk",
    says: "a pull-down behind a buffer, where it does nothing",
    bad: () => buffered(null),
    near: () => buffered({ ohm: 10_000, pin: "1A" }),
    fix: "hold",
  },
  {
    rule: "net.dangling",
    severity: "note",
    says: "a resistor whose other leg is free",
    bad: () => make([AVR, USB, R("R1", 330)], [CABLE, ["R1.1", "B1.D5"]]),
    near: () => make([AVR, USB, led("D1", 330)], [CABLE, ["D1.A", "B1.D5"], ["D1.K", "B1.GND"]]),
  },
  {
    rule: "part.unwired",
    severity: "note",
    says: "a sensor nobody wired",
    bad: () => make([AVR, USB, part("M1", "module/hc-sr04")], [CABLE]),
    near: () => echo(AVR),
  },
  {
    rule: "companion.not-planned",
    severity: "risk",
    says: "a divider asked for at a light",
    bad: () =>
      make(
        [AVR, USB, part("D1", "discrete/led-red", {}, { seriesResistor: { ohm: 390 }, divider: { ohm: 330 } })],
        [CABLE, ["D1.A", "B1.D5"], ["D1.K", "B1.GND"]],
      ),
    near: () => make([AVR, CHARGER, led("D1", 390)], [CABLE, ["D1.A", "B1.D5"], ["D1.K", "B1.GND"]]),
    fix: "drop",
  },
  {
    rule: "level.backfeed",
    severity: "risk",
    says: "5 V from a part on its own adapter into a pin that stands it only while its chip is powered",
    bad: () =>
      make(
        [
          { ref: "B1", part: "board/rp2350-forty" },
          { ref: "S2", part: "supply/adapter-5v-2a" },
          { ref: "S3", part: "supply/lipo-1s" },
          part("M1", "module/hc-sr04"),
        ],
        [
          ["S3.+", "B1.VSYS"],
          ["S3.-", "B1.GND"],
          ["M1.VCC", "S2.5V"],
          ["M1.GND", "S2.GND"],
          ["S2.GND", "B1.GND"],
          ["M1.TRIG", "B1.GP6"],
          ["M1.ECHO", "B1.GP7"],
        ],
      ),
    near: () =>
      make(
        [{ ref: "B1", part: "board/rp2350-forty" }, USB, part("M1", "module/hc-sr04")],
        [CABLE, ["M1.VCC", "B1.VBUS"], ["M1.GND", "B1.GND"], ["M1.TRIG", "B1.GP6"], ["M1.ECHO", "B1.GP7"]],
      ),
  },
  {
    rule: "level.backfeed",
    severity: "risk",
    says: "a bus that a display on its own adapter pulls to 5 V, at a pin that stands it only while its chip is powered",
    bad: () =>
      make(
        [
          { ref: "B1", part: "board/rp2350-forty" },
          { ref: "S2", part: "supply/adapter-5v-2a" },
          { ref: "S3", part: "supply/lipo-1s" },
          part("M1", "module/lcd1602-i2c"),
        ],
        [
          ["S3.+", "B1.VSYS"],
          ["S3.-", "B1.GND"],
          ["M1.VCC", "S2.5V"],
          ["S2.GND", "B1.GND"],
          ["M1.GND", "B1.GND"],
          ["M1.SDA", "B1.GP4"],
          ["M1.SCL", "B1.GP5"],
        ],
      ),
    near: () =>
      make(
        [{ ref: "B1", part: "board/rp2350-forty" }, USB, part("M1", "module/lcd1602-i2c")],
        [CABLE, ["M1.VCC", "B1.VBUS"], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]],
      ),
  },
];
