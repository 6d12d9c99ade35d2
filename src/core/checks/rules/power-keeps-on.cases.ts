import { AVR, ESP, make, part, type Case } from "../cases/build";

const bank = (board: object, id: string) => make([board, part("S1", id)], [["S1.USB", "B1.USB"]]);

export const powerKeepsOnCases: Case[] = [
  {
    rule: "power.keeps-on",
    severity: "risk",
    says: "a small board on a power bank",
    bad: () => bank(AVR, "supply/power-bank"),
    near: () => bank(AVR, "supply/usb-charger"),
  },
  {
    rule: "power.keeps-on",
    severity: "note",
    says: "a radio board on a power bank: while it works it draws enough",
    bad: () => bank(ESP, "supply/power-bank"),
    near: () => bank(ESP, "supply/usb-charger"),
  },
];
