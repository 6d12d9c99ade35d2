import { gaps, type Gap } from "../../firmware/gaps";
import { label } from "../help";
import type { Found, Rule, Severity } from "../types";

const rule = (id: Rule["rule"], kind: Gap["kind"], severity: Severity, says: string, then: string): Rule => ({
  rule: id,
  says,
  check: (c) =>
    gaps(c)
      .filter((g) => g.kind === kind)
      .map((g): Found => ({
        rule: id,
        severity,
        at: [g.ref, g.host],
        message: `No program of ours can work ${label(c, g.ref)} on ${g.host}: ${g.why}. ${then}`,
        evidence: { ram_kB: c.netlist.instance(g.host)!.part.board!.ram_kB },
        fixes: [],
      })),
});

export const firmwareMemory = rule(
  "firmware.memory",
  "memory",
  "fault",
  "What a program must hold of a part has to fit into the chip's memory.",
  "Use a board with more memory, or less of the part.",
);

export const firmwareCapability = rule(
  "firmware.capability",
  "capability",
  "note",
  "A part that our programs can't work on its board is named: it is wired and checked, its code is yours.",
  "It is wired and checked all the same; another board works it, or code of your own between the marks.",
);
