import { AVR, CHARGER, make, part, type Case, type Links } from "../cases/build";

const cell = (id: string, options: object = {}) => part("S2", id, options);
/** A board on a cell behind a charger; with `fed`, a plug at the charger's input as well. */
const charged = (battery: object, charger: object, fed: boolean, out: [string, string, string]) =>
  make(
    [AVR, ...(fed ? [CHARGER] : []), battery, charger, part("M2", "module/boost-adjustable")],
    [
      ["S2.+", "M1.B+"],
      ["S2.-", "M1.B-"],
      [`M1.${out[0]}`, "M2.IN+"],
      [`M1.${out[1]}`, "M2.IN-"],
      ["M2.OUT+", "B1.5V"],
      ["M2.OUT-", "B1.GND"],
      ...(fed
        ? ([
            ["S1.5V", `M1.${out[2]}`],
            ["S1.GND", "M1.IN-"],
          ] satisfies Links)
        : []),
    ],
  );
const OUT: [string, string, string] = ["OUT+", "OUT-", "IN+"];
const tp = (charge_mA = 1000) => part("M1", "module/charger-1s", { charge_mA });
const small = () => cell("supply/lipo-1s", { capacity_mAh: 400 });
const large = () => cell("supply/li-ion-1s", { capacity_mAh: 2500 });

export const powerChargerCases: Case[] = [
  {
    rule: "power.charger",
    severity: "stop",
    says: "a small pouch cell at a charger with the resistor that it is sold with",
    bad: () => charged(small(), tp(), false, OUT),
    near: () => charged(small(), tp(200), false, OUT),
    fix: "charge-slower",
  },
  {
    rule: "power.charger",
    severity: "stop",
    says: "alkaline cells where a lithium cell is charged",
    bad: () => charged(cell("supply/aa-2"), tp(), false, OUT),
    near: () => charged(large(), tp(), false, OUT),
    also: ["risk power.range"],
  },
  {
    rule: "power.charger",
    severity: "stop",
    says: "two cells in a row at a charger for one",
    bad: () => charged(cell("supply/li-ion-2s"), tp(), false, OUT),
    near: () => charged(large(), tp(), false, OUT),
    also: ["stop power.range"],
  },
  {
    rule: "power.charger",
    severity: "note",
    says: "a cell that is charged faster than half its charge in an hour",
    bad: () => charged(cell("supply/lipo-1s", { capacity_mAh: 1200 }), tp(), false, OUT),
    near: () => charged(large(), tp(), false, OUT),
    fix: "charge-slower",
  },
  {
    rule: "power.charger",
    severity: "note",
    says: "a project that draws more through a charger than it stops at",
    bad: () => charged(large(), tp(), true, OUT),
    near: () => charged(large(), tp(), false, OUT),
  },
];
