import { planAll, remedies } from "../core/plan/advice";
import { alternatives, assignLp, isPlanned } from "../core/plan/assign";
import { writeProject } from "../core/project";
import { allowed_ms, catalogue, columns, EXIT, loadFile, note, print, printJson, Unusable, writeFileWhole } from "./io";

interface Options {
  json?: boolean;
  out?: string;
  lp?: string;
  alternatives?: string;
  seconds?: string;
}

const moves = (list: { need: string; from: string | null; to: string | null }[]) =>
  list.map((m) => `${m.need} ${m.from ?? "open"} -> ${m.to ?? "open"}`).join(", ");

export async function assignCommand(file: string, o: Options): Promise<number> {
  const more = o.alternatives === undefined ? 0 : Number(o.alternatives);
  if (!Number.isInteger(more) || more < 0 || more > 20)
    throw new Unusable(`--alternatives ${o.alternatives}: a whole number from 0 to 20 is wanted`);
  const project = loadFile(file);
  const a = planAll(project, catalogue, allowed_ms(o.seconds));
  const planned = isPlanned(a);
  if (o.lp) await writeFileWhole(o.lp, assignLp(project, catalogue));
  if (planned && o.out) await writeFileWhole(o.out, writeProject(a.project));
  const helps = planned ? [] : remedies(project, catalogue, a);
  const others = planned && more ? alternatives(project, catalogue, more + 1).slice(1) : [];
  if (o.json) {
    const { status, cost, costBy, links, spare, core, clash, ms, added, leftOut } = a;
    printJson({
      status,
      cost,
      costBy,
      links,
      ...(added.length && { added }),
      ...(leftOut.length && { leftOut }),
      spare,
      core,
      ...(clash && { clash }),
      ...(!planned && {
        remedies: helps.map(({ id, label, says, adds, moves: m, stops, faults }) => ({
          id,
          label,
          says,
          adds,
          moves: m,
          stops,
          faults,
        })),
      }),
      ...(o.alternatives && { alternatives: others.map(({ cost: c, more, differs }) => ({ cost: c, more, differs })) }),
      ms: Number(ms.toFixed(2)),
    });
  } else if (!planned) {
    note(`${file}: ${a.status === "infeasible" ? "no assignment exists. " : ""}${a.clash}`);
    print(columns([["need", "wants", "locked to"], ...a.core.map((c) => [c.need, c.wants, c.locked ?? ""])]));
    if (helps.length) {
      print("what would help, each tried:");
      for (const r of helps) {
        const buy = r.adds.map((x) => `${x.count} × ${x.part}${x.owned >= x.count ? " (owned)" : ""}`).join(", ");
        print(`  ${r.label}: ${r.says}${buy ? ` [adds ${buy}]` : ""}`);
      }
    } else print("nothing that was tried would help");
  } else {
    if (a.links.length) print(columns(a.links.map((l) => [l.from, l.to, l.why])));
    for (const x of a.added) print(`put in: ${x}`);
    if (a.leftOpen) note(`${file}: ${a.leftOpen}`);
    print(`cost ${a.cost}, ${a.status === "optimal" ? "proven optimal" : "not proven"}, ${a.ms.toFixed(1)} ms`);
    const by = new Map<string, number>();
    for (const c of a.costBy) by.set(c.reason, (by.get(c.reason) ?? 0) + c.cost);
    for (const [reason, cost] of by) print(`  ${reason} ${cost}`);
    print(`spare: ${a.spare.map((s) => (s.host === a.spare[0]?.host ? s.pin : `${s.host}.${s.pin}`)).join(" ")}`);
    for (const x of others) print(`another plan, ${x.more ? `${x.more} dearer` : "as cheap"}: ${moves(x.differs)}`);
  }
  return planned ? EXIT.fine : EXIT.noPlan;
}
