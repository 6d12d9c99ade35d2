import { laidNets } from "../wiring/runsheet/laid";
import type { Trouble } from "../wiring/breadboard";
import type { Circuit } from "../circuit";
import type { Finding, Rule } from "./types";

const troubles = (c: Circuit, kind: Trouble["kind"]) =>
  (laidNets(c).layout?.trouble ?? []).filter((t) => t.kind === kind);

const finding = (rule: string, severity: Finding["severity"], t: Trouble, message: string, c: Circuit): Finding => ({
  rule,
  severity,
  at: t.at,
  message,
  evidence: { boards: c.project.breadboard?.boards.length ?? 0 },
  fixes: [],
});

const joins: Rule = {
  rule: "breadboard.row",
  says: "The five holes of a row are joined inside: a row must belong to one net only.",
  check: (c) =>
    troubles(c, "joins").map((t) =>
      finding(
        "breadboard.row",
        "stop",
        t,
        `${t.says} Move one of them, or find the placement again. Do not power this.`,
        c,
      ),
    ),
};

const room: Rule = {
  rule: "breadboard.room",
  says: "Every part and every wire needs a free hole that nothing covers.",
  check: (c) =>
    troubles(c, "room").map((t) =>
      finding(
        "breadboard.room",
        "fault",
        t,
        `${t.says} Move a part, take another breadboard, or find the placement again.`,
        c,
      ),
    ),
};

export const breadboardRules: Rule[] = [joins, room];
