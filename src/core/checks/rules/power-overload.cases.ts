import { AVR, part, RP, planned, USB, type Case } from "../cases/build";
import { onUsb } from "../cases/power";

export const powerOverloadCases: Case[] = [
  {
    rule: "power.overload",
    severity: "stop",
    says: "thirty lights at full white on a USB port",
    bad: () => onUsb(30, 1),
    near: () => onUsb(30, 0.2),
    fix: "brightness",
    also: ["risk power.through-board"],
  },
  {
    rule: "power.overload",
    severity: "fault",
    says: "eight lights at full white on a USB port, at their peak",
    bad: () => onUsb(8, 1),
    near: () => onUsb(6, 0.6),
  },
  {
    rule: "power.overload",
    severity: "fault",
    says: "a gas sensor at the small 3.3 V regulator of a 5 V board",
    bad: () => planned([AVR, USB, part("M1", "module/ccs811")]),
    near: () => planned([RP, USB, part("M1", "module/ccs811")]),
    also: ["fault level.low-high"],
  },
];
