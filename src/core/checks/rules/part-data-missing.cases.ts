import { AVR, CABLE, make, part, USB, type Case } from "../cases/build";
import { ownPart } from "../cases/own";

const silent = (VIH: string | undefined) =>
  make(
    [AVR, USB, part("M1", "module/silent")],
    [CABLE, ["M1.VCC", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.TRIG", "B1.D8"], ["M1.ECHO", "B1.D2"]],
    {
      customParts: [
        ownPart("module/hc-sr04", "module/silent", (p) => {
          const level = p.levels.main!;
          const { VIH: _h, VIL: _l, ...rest } = level;
          return { levels: { main: VIH ? level : rest } };
        }),
      ],
    },
  );

export const partDataMissingCases: Case[] = [
  {
    rule: "part.data-missing",
    severity: "note",
    says: "a part without thresholds",
    bad: () => silent(undefined),
    near: () => silent("2.0"),
  },
];
