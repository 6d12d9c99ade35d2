import { CABLE, make, part, RP, USB, type Case } from "../cases/build";
import { ownPart } from "../cases/own";

const addressed = (address: string) =>
  make(
    [RP, USB, part("M1", "module/odd-address")],
    [CABLE, ["M1.VCC", "B1.3V3"], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]],
    {
      customParts: [
        ownPart("module/sht31", "module/odd-address", (p) => ({
          options: [],
          groups: p.groups.map((g) => ({ ...g, address })),
        })),
      ],
    },
  );

export const i2cReservedAddressCases: Case[] = [
  {
    rule: "i2c.reserved-address",
    severity: "risk",
    says: "a part at 0x78",
    bad: () => addressed("0x78"),
    near: () => addressed("0x77"),
  },
];
