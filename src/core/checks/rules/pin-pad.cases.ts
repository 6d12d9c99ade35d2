import { CABLE, make, part, USB, type Case } from "../cases/build";

const cold = (sck: string, miso: string) =>
  make(
    [{ ref: "B1", part: "board/imxrt1062-compact" }, USB, part("M1", "module/max31855")],
    [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M1.GND", "B1.GND"],
      ["M1.DO", `B1.${miso}`],
      ["M1.CS", "B1.D2"],
      ["M1.CLK", `B1.${sck}`],
    ],
  );

export const pinPadCases: Case[] = [
  {
    rule: "pin.pad",
    severity: "note",
    says: "a clock line on a pad under the board",
    bad: () => cold("D27", "D1"),
    near: () => cold("D13", "D12"),
  },
];
