import { CABLE, led, make, RP, USB, type Case, type Links } from "../cases/build";

const many = (n: number) =>
  make(
    [RP, USB, ...Array.from({ length: n }, (_, i) => led(`D${i + 1}`, 220))],
    [
      CABLE,
      ...Array.from({ length: n }, (_, i): Links => [
        [`D${i + 1}.A`, `B1.GP${i + 6}`],
        [`D${i + 1}.K`, "B1.GND"],
      ]).flat(),
    ],
  );

export const currentChipCases: Case[] = [
  {
    rule: "current.chip",
    severity: "stop",
    says: "seven bright lights on a chip that stands 50 mA",
    bad: () => many(7),
    near: () => many(5),
    fix: "dim-all",
  },
];
