import { AVR, CABLE, make, part, RP, USB, type Case, type Links } from "../cases/build";

const cell = (id: string, plus: string, more: Links = []) =>
  make([RP, { ref: "S1", part: id }], [["S1.+", plus], ["S1.-", "B1.GND"], ...more]);
const diode = () =>
  make(
    [RP, { ref: "S1", part: "supply/aa-3" }, part("D1", "discrete/diode-1n5819")],
    [
      ["S1.+", "D1.A"],
      ["D1.K", "B1.VSYS"],
      ["S1.-", "B1.GND"],
    ],
  );
const fromUsb = () => make([AVR, USB], [CABLE]);

/** Rules that only tell what is worth knowing about batteries. */
export const batteryNoteCases: Case[] = [
  {
    rule: "wire.short-current",
    severity: "note",
    says: "a lithium cell on jumper wires",
    bad: () => cell("supply/li-ion-1s", "B1.VSYS"),
    near: () => cell("supply/aa-3", "B1.VSYS"),
  },
  {
    rule: "power.polarity-protection",
    severity: "note",
    says: "AA cells straight at a board",
    bad: () => cell("supply/aa-3", "B1.VSYS"),
    near: diode,
  },
  {
    rule: "power.sleep",
    severity: "note",
    says: "a board that lives on AA cells",
    bad: () => cell("supply/aa-3", "B1.VSYS"),
    near: fromUsb,
  },
];
