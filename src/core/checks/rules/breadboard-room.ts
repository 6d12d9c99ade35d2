import type { Rule } from "../types";
import { troubles, finding } from "../breadboard";

export const breadboardRoom: Rule = {
  rule: "breadboard.room",
  says: "Every part and every wire needs a free hole that nothing covers.",
  check: (c) =>
    troubles(c, "room").map((t) =>
      finding("breadboard.room", "fault", c, t, "Move a part or take another breadboard."),
    ),
};
