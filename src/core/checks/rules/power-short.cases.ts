import { AVR, CABLE, make, USB, type Case, type Links } from "../cases/build";

const shorted = (to: string | null) => make([AVR, USB], [CABLE, ...((to ? [["B1.5V", to]] : []) as Links)]);

export const powerShortCases: Case[] = [
  {
    rule: "power.short",
    severity: "stop",
    says: "5 V joined to ground",
    bad: () => shorted("B1.GND"),
    near: () => shorted(null),
    fix: "remove",
  },
  {
    rule: "power.short",
    severity: "stop",
    says: "5 V joined to 3.3 V",
    bad: () => shorted("B1.3V3"),
    near: () => shorted(null),
    fix: "remove",
  },
];
