import { AVR, changed, farEnd, moved, part, planned, USB, type Case } from "../cases/build";

/** Clocked lights on lines of their own beside a sensor on the bus. */
const apart = () =>
  planned([
    AVR,
    USB,
    { ...part("M1", "module/apa102-strip", { pixels: 8, brightness: 0.2 }), software: ["bus"] },
    part("M2", "module/max6675"),
  ]);
const shared = () => {
  const p = changed(apart(), { type: "setSoftware", ref: "M1", group: "bus", software: false });
  return moved(moved(p, "M1.CI", farEnd(p, "M2.SCK")), "M1.DI", "B1.D11");
};

export const spiNoSelectCases: Case[] = [
  {
    rule: "spi.no-select",
    severity: "risk",
    says: "clocked lights on a sensor's clock",
    bad: shared,
    near: apart,
    fix: "own-lines",
  },
];
