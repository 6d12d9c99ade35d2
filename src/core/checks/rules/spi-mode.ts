import { spiBuses } from "../../circuit/buses";
import { label } from "../help";
import type { Found, Rule } from "../types";

export const spiMode: Rule = {
  rule: "spi.mode",
  says: "Parts that read the clock's other edge need their own mode: set it with every transaction.",
  check: (c) =>
    spiBuses(c)
      .filter((b) => b.switchesMode)
      .map((b): Found => ({
        rule: "spi.mode",
        severity: "note",
        at: b.members.map((m) => m.ref),
        message: `${b.members.map((m) => `${label(c, m.ref)} mode ${m.mode}`).join(", ")}: each transaction must set its own mode and clock.`,
        evidence: { modes: [...new Set(b.members.map((m) => m.mode))].join(", ") },
        fixes: [],
      })),
};
