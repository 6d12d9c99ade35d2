import { make, part, type Case } from "../cases/build";

const low = (V: number) =>
  make(
    [{ ref: "B1", part: "board/stm32f103-forty" }, part("S1", "supply/bench", { output_V: V, limit_mA: 500 })],
    [
      ["S1.+", "B1.5V"],
      ["S1.-", "B1.GND"],
    ],
  );

export const powerDropoutCases: Case[] = [
  {
    rule: "power.dropout",
    severity: "fault",
    says: "3.3 V at the input of a 3.3 V regulator",
    bad: () => low(3.3),
    near: () => low(5),
  },
];
