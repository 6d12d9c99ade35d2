import type { Case } from "../cases/build";
import { stage, relay, NPN, coilLinks } from "../cases/currents";

export const loadFollowerCases: Case[] = [
  {
    rule: "load.follower",
    severity: "fault",
    says: "a 12 V coil at the emitter",
    bad: () =>
      stage(
        relay(NPN(1000), {
          links: [
            ["Q1.C", "S2.12V"],
            ["MT1.1", "Q1.E"],
            ["MT1.2", "S2.GND"],
          ],
        }),
      ),
    near: () => stage(relay(NPN(1000), { links: coilLinks("S2.12V") })),
    fix: "low-side",
  },
];
