import type { Rule } from "../types";
import { troubles, finding } from "../breadboard";

export const breadboardOpen: Rule = {
  rule: "breadboard.open",
  says: "Rows, rails and wires must really join every pin of a net: followed hole by hole, split rails included.",
  check: (c) =>
    troubles(c, "apart").map((t) =>
      finding("breadboard.open", "fault", c, t, "Move a part, or place everything again."),
    ),
};
