import { CABLE, make, part, RP, USB, type Case } from "../cases/build";

const can = (termination: object | null | undefined) =>
  make(
    [
      RP,
      USB,
      {
        ref: "M1",
        part: "module/max3485",
        companions: { pullDown: { ohm: 10_000 }, ...(termination !== undefined && { termination }) },
      },
      part("J1", "connector/screw-2", { pins: { "1": { name: "A", role: "digital-io", V: 3.3 }, "2": null } }),
    ],
    [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M1.GND", "B1.GND"],
      ["M1.RO", "B1.GP1"],
      ["M1.DI", "B1.GP0"],
      ["M1.DE", "B1.GP2"],
      ["M1.RE", "B1.GP3"],
      ["M1.A", "J1.1"],
    ],
  );

export const busTerminationCases: Case[] = [
  {
    rule: "bus.termination",
    severity: "note",
    says: "a CAN pair that leaves the bench",
    bad: () => can(undefined),
    near: () => can({ ohm: 120 }),
  },
];
