import { AVR, CABLE, led, make, part, USB, CHARGER, type Case } from "../cases/build";

export const companionNotPlannedCases: Case[] = [
  {
    rule: "companion.not-planned",
    severity: "risk",
    says: "a divider asked for at a light",
    bad: () =>
      make(
        [AVR, USB, part("D1", "discrete/led-red", {}, { seriesResistor: { ohm: 390 }, divider: { ohm: 330 } })],
        [CABLE, ["D1.A", "B1.D5"], ["D1.K", "B1.GND"]],
      ),
    near: () => make([AVR, CHARGER, led("D1", 390)], [CABLE, ["D1.A", "B1.D5"], ["D1.K", "B1.GND"]]),
    fix: "drop",
  },
];
