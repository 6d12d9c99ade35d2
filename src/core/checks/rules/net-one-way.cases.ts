import { AVR, CABLE, make, part, RP, USB, type Case, type Links } from "../cases/build";
import { bus3 } from "../cases/buses";

const ISOLATED: Links = [
  ["M2.VCC1", "B1.3V3"],
  ["M2.GND1", "B1.GND"],
  ["M2.VCC2", "S2.+"],
  ["M2.GND2", "S2.-"],
  ["M1.VCC", "S2.+"],
  ["M1.GND", "S2.-"],
  ["M2.INB", "M1.SDA"],
  ["M2.OUTB", "B1.GP4"],
  ["M2.INA", "B1.GP5"],
  ["M2.OUTA", "M1.SCL"],
];

const gap = (second: object, links: Links) =>
  make(
    [
      RP,
      USB,
      { ref: "S2", part: "supply/bench", options: { output_V: 5 } },
      part("M2", "module/isolator-2ch", {}, { decoupling: { F: 1e-7 } }),
      second,
    ],
    [CABLE, ...links],
    { houseRules: { grounds: "isolated" } },
  );

const wet = (shifter: object | null) =>
  make(
    [AVR, USB, part("M1", "module/dht22", {}, { pullUp: { ohm: 4700 }, ...(shifter && { shifter }) })],
    [CABLE, ["M1.VCC", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.DATA", "B1.D4"]],
  );

export const netOneWayCases: Case[] = [
  {
    rule: "net.one-way",
    severity: "fault",
    says: "an I2C clock behind an isolator with one line each way",
    bad: () => gap(part("M1", "module/ds3231"), ISOLATED),
    near: () => bus3([part("M1", "module/ds3231")]),
  },
  {
    rule: "net.one-way",
    severity: "fault",
    says: "a buffer in the wire of a sensor that is asked and answers on it",
    bad: () => wet({ part: "module/buffer-74ahct125" }),
    near: () => wet(null),
    fix: "no-buffer",
  },
];
