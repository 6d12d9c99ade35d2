import { leadClock, spiBuses } from "../../circuit/buses";
import { label, round } from "../help";
import type { Found, Rule } from "../types";

const MHz = (hz: number) => `${Number((hz / 1e6).toFixed(2))} MHz`;

export const spiClock: Rule = {
  rule: "spi.clock",
  says: "Loose leads carry about 8 MHz up to 15 cm, 4 MHz up to 30 cm and 1 MHz beyond; a part has a limit of its own.",
  check: (c) =>
    spiBuses(c).flatMap((b): Found[] => {
      if (b.asked_Hz === null) return [];
      const slow = b.members.filter((m) => b.asked_Hz! > Math.min(m.max_Hz, leadClock(m.cm)));
      if (!slow.length) return [];
      const first = slow[0]!;
      const byPart = b.asked_Hz > first.max_Hz;
      return [
        {
          rule: "spi.clock",
          severity: "risk",
          at: slow.map((m) => m.ref),
          message: `The bus shall run at ${MHz(b.asked_Hz)}; ${byPart ? `${label(c, first.ref)} takes ${MHz(first.max_Hz)} at most` : `${first.cm} cm of leads to ${label(c, first.ref)} carry about ${MHz(leadClock(first.cm))}`}.`,
          evidence: {
            asked_MHz: round(b.asked_Hz / 1e6, 2),
            advised_MHz: round(b.common_Hz / 1e6, 2),
            leads_cm: first.cm,
          },
          fixes:
            b.host && b.bus
              ? [
                  {
                    id: "slower",
                    label: `Run the bus at ${MHz(b.common_Hz)}`,
                    edits: [{ type: "setBus", host: b.host, bus: b.bus, clock_Hz: b.common_Hz }],
                  },
                ]
              : [],
        },
      ];
    }),
};
