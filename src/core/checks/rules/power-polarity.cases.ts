import { AVR, CABLE, make, USB, type Case } from "../cases/build";
import { twice } from "../cases/power";

export const powerPolarityCases: Case[] = [
  {
    rule: "power.polarity",
    severity: "note",
    says: "an adapter with a plug",
    bad: () => twice(false),
    near: () => make([AVR, USB], [CABLE]),
  },
];
