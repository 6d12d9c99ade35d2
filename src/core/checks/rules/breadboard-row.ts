import type { Rule } from "../types";
import { troubles, finding } from "../breadboard";

export const breadboardRow: Rule = {
  rule: "breadboard.row",
  says: "The five holes of a row are joined inside: a row must belong to one net only.",
  check: (c) =>
    troubles(c, "joins").map((t) => finding("breadboard.row", "stop", c, t, "Move one of them. Do not power this.")),
};
