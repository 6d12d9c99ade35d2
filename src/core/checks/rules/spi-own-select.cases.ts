import { AVR, changed, moved, part, planned, USB, type Case } from "../cases/build";

const select = (button: string) => {
  const p = planned([AVR, USB, part("M1", "module/max6675"), part("SW1", "discrete/button")]);
  return changed(moved(moved(p, "M1.CS", "B1.D9"), "SW1.1", `B1.${button}`));
};

export const spiOwnSelectCases: Case[] = [
  {
    rule: "spi.own-select",
    severity: "risk",
    says: "a button on the controller's own select",
    bad: () => select("D10"),
    near: () => select("D4"),
    fix: "move-pin",
  },
];
