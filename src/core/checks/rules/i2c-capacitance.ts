import { i2cBuses } from "../../circuit/buses";
import { formatSI } from "../../quantity";
import { label, round } from "../help";
import type { Found, Rule } from "../types";
import { sdaOf, names } from "../i2c";

const MOST_F = 400e-12;

export const i2cCapacitance: Rule = {
  rule: "i2c.capacitance",
  says: "An I2C line may carry 400 pF in all: pins, wires and breadboard together (UM10204).",
  check: (c) =>
    i2cBuses(c).flatMap((b): Found[] => {
      if (b.load.total_F <= MOST_F) return [];
      const long = c.project.parts.filter((p) => b.members.some((m) => m.ref === p.ref) && (p.wire_cm ?? 0) > 30);
      return [
        {
          rule: "i2c.capacitance",
          severity: "fault",
          at: sdaOf(b),
          message: `The lines of ${names(c, b.members)} come to ${formatSI(b.load.total_F, "F")} (${b.load.cm} cm of wire); 400 pF is the most. Shorten them or use a bus extender.`,
          evidence: {
            line_pF: round(b.load.total_F * 1e12, 0),
            wires_pF: round(b.load.wires_F * 1e12, 0),
            most_pF: 400,
          },
          fixes: long.map((p) => ({
            id: `shorten-${p.ref}`,
            label: `Plan 30 cm wires for ${label(c, p.ref)}`,
            edits: [{ type: "setWire", ref: p.ref, wire_cm: 30 }],
          })),
        },
      ];
    }),
};
