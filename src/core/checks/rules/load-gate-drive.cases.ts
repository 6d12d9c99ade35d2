import { RP, type Case } from "../cases/build";
import { stage, IRLZ, Stage } from "../cases/currents";

const AO: Pick<Stage, "q" | "legs"> = { q: "discrete/nmos-ao3400", legs: ["G", "D", "S"] };

export const loadGateDriveCases: Case[] = [
  {
    rule: "load.gate-drive",
    severity: "fault",
    says: "a 5 V MOSFET on a 3.3 V pin",
    bad: () => stage({ ...IRLZ, board: RP }),
    near: () => stage({ ...AO, board: RP }),
    fix: "swap",
  },
];
