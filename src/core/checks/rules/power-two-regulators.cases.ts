import { AVR, CABLE, make, part, RP, USB, type Case } from "../cases/build";

const NINE = { ref: "S2", part: "supply/adapter-9v-1a" };
const second = (usb: boolean) =>
  make([RP, ...(usb ? [USB] : []), NINE, part("U1", "module/buck-adjustable", { output_V: 3.3 })], [
    ...(usb ? [CABLE] : []),
    ["S2.9V", "U1.IN+"],
    ["S2.GND", "U1.IN-"],
    ["U1.OUT+", "B1.3V3"],
    ["U1.OUT-", "B1.GND"],
  ] as [string, string][]);
const twins = (joined: boolean) =>
  make(
    [AVR, USB, { ref: "S2", part: "supply/adapter-5v-2a" }, part("U1", "module/ldo-3v3"), part("U2", "module/ldo-3v3")],
    [
      CABLE,
      ["S2.5V", "U1.VIN"],
      ["S2.5V", "U2.VIN"],
      ["S2.GND", "U1.GND"],
      ["S2.GND", "U2.GND"],
      ["S2.GND", "B1.GND"],
      ...(joined ? [["U1.VOUT", "U2.VOUT"] as [string, string]] : []),
    ],
  );

export const twoRegulatorsCases: Case[] = [
  {
    rule: "power.two-sources",
    severity: "risk",
    says: "two regulators joined at their outputs",
    bad: () => twins(true),
    near: () => twins(false),
    fix: "remove-wire",
  },
  {
    rule: "power.two-sources",
    severity: "risk",
    says: "a regulator on the 3.3 V pin while USB feeds the board's own",
    bad: () => second(true),
    near: () => second(false),
    fix: "remove-wire",
  },
];
