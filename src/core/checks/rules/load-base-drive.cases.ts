import type { Case } from "../cases/build";
import { stage, relay, NPN, coilLinks } from "../cases/currents";

export const loadBaseDriveCases: Case[] = [
  {
    rule: "load.base-drive",
    severity: "fault",
    says: "ten kilohms at the base of a relay's transistor",
    bad: () => stage(relay(NPN(10_000), { links: coilLinks("S2.12V"), q: "discrete/npn-2n2222" })),
    near: () => stage(relay(NPN(1000), { links: coilLinks("S2.12V") })),
    fix: "base-resistor",
  },
];
