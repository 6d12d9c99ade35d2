import { part, RP, planned, USB, type Case } from "../cases/build";
import { ownPart } from "../cases/own";

const edge3 = ownPart("module/mcp3008", "module/other-edge", (p) => ({
  groups: p.groups.map((g) => ({ ...g, mode: 3 })),
}));

const modes = (id: string) =>
  planned(
    [
      RP,
      USB,
      part("M1", "module/mcp4921", {}, { decoupling: { F: 1e-7 } }),
      part("M2", id, {}, { decoupling: { F: 1e-7 } }),
    ],
    { customParts: [edge3] },
  );

export const spiModeCases: Case[] = [
  {
    rule: "spi.mode",
    severity: "note",
    says: "two parts that read different edges",
    bad: () => modes("module/other-edge"),
    near: () => modes("module/mcp3008"),
  },
];
