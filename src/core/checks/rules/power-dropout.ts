import { formatV } from "../../quantity";
import { netById } from "../graph";
import { label, round } from "../help";
import type { Found, Rule } from "../types";
import { droppedOut } from "../regulators";

export const powerDropout: Rule = {
  rule: "power.dropout",
  says: "A regulator needs a little more at its input than it gives: its drop-out. Below that its output sinks with the input.",
  check: (c) =>
    droppedOut(c).map(({ stage, usual, gives, wants, by }): Found => {
      const vin = netById(c, stage.from)!.V!;
      return {
        rule: "power.dropout",
        severity: usual ? "fault" : "risk",
        at: [stage.ref],
        message: `${label(c, stage.ref)}, ${stage.converter.says}: at ${formatV(vin.min)} in it gives ${formatV(Math.max(0, gives))} only; ${label(c, by)} wants ${formatV(wants)}.${usual ? "" : " So it is when the source is low."}`,
        evidence: {
          in_V: round(vin.min),
          dropout_V: stage.converter.dropout_V ?? 0,
          out_V: round(gives),
          wants_V: round(wants),
        },
        fixes: [],
      };
    }),
};
