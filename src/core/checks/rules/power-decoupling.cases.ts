import { AVR, make, part, planned, USB, type Case } from "../cases/build";

const bare = (decoupling: object | undefined) =>
  make(
    [AVR, USB, part("M1", "module/74hc595", {}, decoupling ? { decoupling } : {})],
    planned([AVR, USB, part("M1", "module/74hc595")]).links.map((l): [string, string] => [l.from, l.to]),
  );

export const powerDecouplingCases: Case[] = [
  {
    rule: "power.decoupling",
    severity: "risk",
    says: "a bare chip without 100 nF",
    bad: () => bare(undefined),
    near: () => bare({ F: 1e-7 }),
    fix: "decoupling",
  },
];
