import type { Rule } from "../types";
import { troubles, finding } from "../breadboard";

export const breadboardPlace: Rule = {
  rule: "breadboard.place",
  says: "A part without a place hangs on leads; on the breadboard it needs fewer wires.",
  check: (c) =>
    troubles(c, "open").map((t) => finding("breadboard.place", "note", c, t, "Until then it hangs on leads.")),
};
