import { openPins } from "../plan/assign";
import { evidenceOf } from "../bench";
import type { Circuit } from "../circuit";
import type { Finding, Severity } from "./types";

export interface Verdict {
  level: "empty" | "stop" | "fault" | "open" | "wrong" | "risk" | "ready" | "works";
  words: string;
  counts: Record<Severity, number>;
  open: number;
}

const many = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;

/** The one sentence at the top: whether this may be powered, will work, is planned, is ready, or was seen to work. */
export function verdict(c: Circuit, list: readonly Finding[]): Verdict {
  const counts = { stop: 0, fault: 0, risk: 0, note: 0 };
  for (const f of list) if (f.severity === "stop" || !f.acknowledged) counts[f.severity]++;
  const parts = [...c.netlist.expanded.instances.values()].filter((i) => !i.inserted);
  const open = parts
    .filter((i) => !i.part.board && !i.part.id.startsWith("supply/") && (i.host || !c.netlist.expanded.hosts.length))
    .reduce((s, i) => s + openPins(c.project, c.netlist, i).filter((p) => p.need).length, 0);
  const answer = (level: Verdict["level"], words: string): Verdict => ({ level, words, counts, open });
  if (!parts.length) return answer("empty", "Nothing planned yet");
  if (counts.stop) return answer("stop", `Do not power yet: ${many(counts.stop, "stop")}`);
  if (counts.fault) return answer("fault", `Will not work yet: ${many(counts.fault, "fault")}`);
  if (!c.netlist.expanded.hosts.length) return answer("open", "Not planned yet: no board chosen");
  if (open) return answer("open", `Not planned yet: ${many(open, "pin")} open`);
  const bench = evidenceOf(c);
  if (bench.wrong.length) return answer("wrong", `Not right on the bench: ${many(bench.wrong.length, "reading")} off`);
  if (bench.works) return answer("works", "Works on the bench");
  if (counts.risk) return answer("risk", `Can be wired: ${many(counts.risk, "risk")} to know`);
  return answer("ready", "Ready to wire");
}
