import { AVR, CABLE, make, part, USB, type Case } from "../cases/build";
import { ownPart } from "../cases/own";

const built = (id: string) =>
  make(
    [AVR, USB, part("M1", id)],
    [CABLE, ["M1.VCC", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.TRIG", "B1.D8"], ["M1.ECHO", "B1.D2"]],
    { customParts: [ownPart("module/hc-sr04", "module/echo-box", () => ({}))] },
  );

export const partOwnDataCases: Case[] = [
  {
    rule: "part.own-data",
    severity: "note",
    says: "a part whose data came with the project",
    bad: () => built("module/echo-box"),
    near: () => built("module/hc-sr04"),
  },
];
