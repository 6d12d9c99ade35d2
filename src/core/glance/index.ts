import { checklist } from "../bench";
import { isLaid, runSheet } from "../build/runsheet";
import { findings, verdict, type Verdict } from "../checks";
import type { Circuit } from "../circuit";

/** A project at a glance: how it stands and how far it got. */
export interface Glance {
  verdict: Pick<Verdict, "level" | "words">;
  /** The station at which work goes on. */
  at: "parts" | "board" | "pins" | "wiring" | "bench";
  parts: number;
  /** Done and all. */
  wired: [number, number];
  checked: [number, number];
}

/** How a project stands and how far it got: its verdict, the station where work goes on, the shares that are wired and checked. */
export function glanceAt(c: Circuit): Glance {
  const { project } = c;
  const v = verdict(c, findings(c));
  const done = (list: "wires" | "checks", ids: ReadonlySet<string>) =>
    project.bench.filter((b) => b.list === list && b.done && ids.has(b.id)).length;
  const wires = new Set(runSheet(c).flatMap((r) => (isLaid(r) ? [r.id] : [])));
  const checks = new Set(checklist(c).map((i) => i.id));
  const wired: [number, number] = [done("wires", wires), wires.size];
  const checked: [number, number] = [done("checks", checks), checks.size];
  const at = !project.parts.length
    ? "parts"
    : !c.netlist.expanded.hosts.length
      ? "board"
      : v.open
        ? "pins"
        : wired[0] < wired[1]
          ? "wiring"
          : "bench";
  return { verdict: { level: v.level, words: v.words }, at, parts: project.parts.length, wired, checked };
}
