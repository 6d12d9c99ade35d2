import { part, planned, RP, USB, type Case } from "../cases/build";

const scale = (output_mV_V: number) =>
  planned([RP, USB, part("M1", "module/hx711"), part("D1", "discrete/load-cell", { output_mV_V })]);

export const bridgeRangeCases: Case[] = [
  {
    rule: "bridge.range",
    severity: "fault",
    says: "a load cell that gives more than the amplifier takes",
    bad: () => scale(4),
    near: () => scale(2),
  },
  {
    rule: "bridge.range",
    severity: "note",
    says: "a load cell that hardly moves the amplifier",
    bad: () => scale(0.3),
    near: () => scale(1),
  },
];
