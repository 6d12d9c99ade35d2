import { count } from "../core/quantity/count";
import fs from "node:fs/promises";
import path from "node:path";
import { planOutputs } from "../core/formats";
import { TARGETS } from "../core/firmware";
import { catalogue, EXIT, loadFile, note, planFonts, print, Unusable } from "./io";
import { adopted, withOwnCode } from "./adopt";
import { printFindings, statusOf } from "./check";

async function isEmptyOrMissing(dir: string): Promise<boolean> {
  try {
    return (await fs.readdir(dir)).length === 0;
  } catch (e) {
    const code = (e as NodeJS.ErrnoException).code;
    if (code === "ENOENT") return true;
    throw new Unusable(`${dir}: ${code === "ENOTDIR" ? "this is a file; name a folder" : `can't be read (${code})`}`);
  }
}

/** Writes all files into a temporary folder beside the target, then moves it into place. */
async function writeFolder(dir: string, files: Record<string, string | Uint8Array>) {
  const target = path.resolve(dir);
  await fs.mkdir(path.dirname(target), { recursive: true });
  const temp = await fs.mkdtemp(path.join(path.dirname(target), ".lattice-"));
  try {
    for (const [name, data] of Object.entries(files)) {
      const file = path.join(temp, name);
      await fs.mkdir(path.dirname(file), { recursive: true });
      await fs.writeFile(file, data);
    }
    await fs.chmod(temp, 0o755);
    await fs.rm(target, { recursive: true, force: true });
    await fs.rename(temp, target);
  } catch (e) {
    await fs.rm(temp, { recursive: true, force: true });
    throw e;
  }
}

export async function planCommand(
  file: string,
  o: { out: string; target?: string[]; force?: boolean; replan?: boolean },
): Promise<number> {
  const project = loadFile(file);
  for (const t of o.target ?? [])
    if (!TARGETS.some((x) => x.id === t))
      throw new Unusable(`--target ${t}: choose from ${TARGETS.map((x) => x.id).join(", ")}`);
  const empty = await isEmptyOrMissing(o.out);
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
  await writeFolder(o.out, result.files);
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
