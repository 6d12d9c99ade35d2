import { AVR, CABLE, make, part, USB, type Case } from "../cases/build";

const button = (pull: "internal" | null) =>
  make(
    [AVR, USB, part("SW1", "discrete/button", {}, { pullUp: pull })],
    [CABLE, ["SW1.1", "B1.D4"], ["SW1.2", "B1.GND"]],
  );

export const netFloatingCases: Case[] = [
  {
    rule: "net.floating",
    severity: "risk",
    says: "a button without a pull",
    bad: () => button(null),
    near: () => button("internal"),
    fix: "pull",
  },
];
