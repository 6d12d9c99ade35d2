import { make, part, RP, type Case } from "../cases/build";
import { sagging } from "../cases/power";

const cell = (place: string, charger: boolean) =>
  make(
    [
      RP,
      part("S1", "supply/lipo-1s"),
      part("SW1", "discrete/toggle", {}, { pullUp: null }),
      ...(charger ? [part("M1", "module/charger-1s")] : []),
    ],
    charger
      ? [
          ["S1.+", "M1.B+"],
          ["S1.-", "M1.B-"],
          ["M1.OUT+", "SW1.1"],
          ["M1.OUT-", "B1.GND"],
          ["SW1.2", "B1.VSYS"],
        ]
      : [
          ["S1.+", "SW1.1"],
          ["S1.-", "B1.GND"],
          ["SW1.2", "B1.VSYS"],
        ],
    { brief: { place } },
  );

export const powerCellTemperatureCases: Case[] = [
  {
    rule: "power.cell-temperature",
    severity: "risk",
    says: "a lithium cell that is charged outdoors",
    bad: () => cell("shelter", true),
    near: () => cell("room", true),
  },
  {
    rule: "power.cell-temperature",
    severity: "risk",
    says: "a lithium cell in a box in the sun",
    bad: () => cell("sun", false),
    near: () => cell("room", false),
  },
  {
    rule: "power.cell-temperature",
    severity: "risk",
    says: "AA cells in a box in the sun",
    bad: () => sagging(20, "sun"),
    near: () => sagging(20, "shelter"),
  },
];
