import { count } from "../core/quantity/count";
import { planOutputs } from "../core/formats";
import { TARGETS } from "../core/firmware";
import { catalogue, EXIT, loadFile, note, planFonts, print, Unusable } from "./io";
import { adopted, withOwnCode } from "./adopt";
import { expectReplaceable, isEmptyOrMissing, writePlanFolder } from "./plan-folder";
import { printFindings, statusOf } from "./check";

export async function planCommand(
  file: string,
  o: { out: string; target?: string[]; force?: boolean; replan?: boolean },
): Promise<number> {
  const project = loadFile(file);
  for (const t of o.target ?? [])
    if (!TARGETS.some((x) => x.id === t))
      throw new Unusable(`--target ${t}: choose from ${TARGETS.map((x) => x.id).join(", ")}`);
  const empty = await isEmptyOrMissing(o.out);
  if (!empty && o.force) await expectReplaceable(o.out);
  // Own code of an earlier plan stays: what stands between the marks there goes into what is written now.
  const own = empty ? null : adopted(project, o.out);
  if (!empty && !o.force)
    throw new Unusable(
      [
        `${o.out}: the folder is not empty; name another one, or add --force to replace it`,
        ...own!.taken.map(
          (t) => `${o.out}: ${t.path} holds own code (${t.region}) that the project has not; "adopt" takes it`,
        ),
      ].join("\n"),
    );
  if (own?.problems.length)
    throw new Unusable(own.problems.map((p) => `${o.out}: ${p}; own code there would be lost`).join("\n"));
  for (const t of own?.taken ?? [])
    note(`${o.out}: own code of ${t.path} (${t.region}) is kept; "adopt" takes it into the project`);
  for (const f of own?.outside ?? []) note(`${o.out}: ${f} was changed outside of its marks, which is written anew`);
  const result = await planOutputs(
    own ? withOwnCode(project, own) : project,
    catalogue,
    planFonts(),
    o.target,
    o.replan ? "anew" : "open",
  );
  if (result.status === "infeasible") {
    note(`${file}: no assignment exists. ${result.clash}`);
    return EXIT.noPlan;
  }
  if (result.unfit.length) throw new Unusable(`--target ${result.unfit.join("; ")}`);
  const kept = await writePlanFolder(o.out, result.files);
  if (kept.length) note(`${o.out}: kept, as no plan wrote it: ${kept.join(", ")}`);
  if (result.leftOpen) note(`${file}: ${result.leftOpen}`);
  for (const s of result.silent) note(`${file}: ${s}`);
  printFindings(result.text.findings);
  if (result.planned) print(`planned: ${count(result.planned, "wire")} that were not there`);
  if (result.text.open.length)
    note(`${file}: still open: ${result.text.open.map((x) => `${x.end} (${x.wants})`).join(", ")}`);
  print(
    `${result.text.verdict.words}, plan ${result.text.fingerprint}. ${Object.keys(result.files).length} files in ${o.out}`,
  );
  return statusOf(result.text.findings);
}
