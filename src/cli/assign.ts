import { assign, assignLp } from "../core/assign";
import { writeProject } from "../core/project";
import { catalogue, columns, EXIT, loadFile, note, print, printJson, writeFileWhole } from "./io";

export async function assignCommand(file: string, o: { json?: boolean; out?: string; lp?: string }): Promise<number> {
  const project = loadFile(file);
  const a = assign(project, catalogue);
  if (o.lp) await writeFileWhole(o.lp, assignLp(project, catalogue));
  if (a.status !== "infeasible" && o.out) await writeFileWhole(o.out, writeProject(a.project));
  if (o.json) {
    const { status, cost, costBy, links, spare, core, clash, ms } = a;
    printJson({ status, cost, costBy, links, spare, core, ...(clash && { clash }), ms: Number(ms.toFixed(2)) });
  } else if (a.status === "infeasible") {
    note(`${file}: no assignment exists. ${a.clash}`);
    print(columns([["need", "wants", "locked to"], ...a.core.map((c) => [c.need, c.wants, c.locked ?? ""])]));
  } else {
    if (a.links.length) print(columns(a.links.map((l) => [l.from, l.to, l.why])));
    print(`cost ${a.cost}, proven optimal, ${a.ms.toFixed(1)} ms`);
    const by = new Map<string, number>();
    for (const c of a.costBy) by.set(c.reason, (by.get(c.reason) ?? 0) + c.cost);
    for (const [reason, cost] of by) print(`  ${reason} ${cost}`);
    print(`spare: ${a.spare.map((s) => s.pin).join(" ")}`);
  }
  return a.status === "infeasible" ? EXIT.noPlan : EXIT.fine;
}
