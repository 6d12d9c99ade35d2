import { ADAPTER5, AVR, CABLE, make, part, USB, type Case } from "../cases/build";

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

export const levelBackfeedCases: Case[] = [
  {
    rule: "level.backfeed",
    severity: "risk",
    says: "5 V data straight into a strip on its own adapter",
    bad: () => strip(AVR, null),
    near: () => strip(AVR, { ohm: 330 }),
    fix: "series-resistor",
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
