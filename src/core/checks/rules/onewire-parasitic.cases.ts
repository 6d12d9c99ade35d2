import { CABLE, make, part, RP, USB, type Case } from "../cases/build";

const probe = (vdd: string) =>
  make(
    [RP, USB, part("M1", "module/ds18b20", {}, { pullUp: { ohm: 4700 } })],
    [CABLE, ["M1.VDD", vdd], ["M1.GND", "B1.GND"], ["M1.DQ", "B1.GP2"]],
  );

export const onewireParasiticCases: Case[] = [
  {
    rule: "onewire.parasitic",
    severity: "fault",
    says: "a one-wire sensor with VDD at ground",
    bad: () => probe("B1.GND"),
    near: () => probe("B1.3V3"),
    fix: "logic-supply",
  },
];
