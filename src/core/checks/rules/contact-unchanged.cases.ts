import { CABLE, make, part, RP, USB, type Case } from "../cases/build";

const press = (to: string) =>
  make(
    [RP, USB, part("SW1", "discrete/button", {}, { pullUp: "internal" })],
    [CABLE, ["SW1.1", "B1.GP2"], ["SW1.2", to]],
  );

export const contactUnchangedCases: Case[] = [
  {
    rule: "contact.unchanged",
    severity: "fault",
    says: "a button with a pull-up that closes to the supply",
    bad: () => press("B1.3V3"),
    near: () => press("B1.GND"),
    fix: "return",
  },
  {
    rule: "contact.unchanged",
    severity: "fault",
    says: "a button from one pin to another",
    bad: () => press("B1.GP3"),
    near: () => press("B1.GND"),
    fix: "return",
  },
];
