import { readFileSync, statSync } from "node:fs";
import path from "node:path";
import { circuitOf } from "../core/circuit";
import { adopt, type Adopted } from "../core/firmware/own/adopt";
import { applyEdit, writeProject, type Project } from "../core/project";
import { count } from "../core/quantity/count";
import { catalogue, EXIT, loadFile, note, print, Unusable, writeFileWhole } from "./io";

/** A program file is far smaller. */
const MOST_BYTES = 2_000_000;

/** A file of a target in a folder that `plan` wrote, or in the firmware folder, or in that of the target itself. */
function fileIn(dir: string, target: string, name: string): string | null {
  for (const base of [path.join(dir, "firmware", target), path.join(dir, target), dir]) {
    const file = path.join(base, name);
    try {
      if (!statSync(file).isFile()) continue;
      if (statSync(file).size > MOST_BYTES) throw new Unusable(`${file}: far larger than a program of ours can be`);
      return readFileSync(file, "utf8");
    } catch (e) {
      if (e instanceof Unusable) throw e;
    }
  }
  return null;
}

/** What stands between the marks of the program files in a folder. */
export const adopted = (project: Project, dir: string): Adopted =>
  adopt(circuitOf(project, catalogue), (target, name) => fileIn(dir, target, name));

/** The project with the own code of edited program files. */
export const withOwnCode = (project: Project, own: Adopted): Project =>
  own.edits.reduce((p, e) => applyEdit(p, e, catalogue), project);

/** Reads own code back out of edited program files. */
export async function adoptCommand(dir: string, file: string, o: { out?: string; json?: boolean }): Promise<number> {
  const project = loadFile(file);
  try {
    if (!statSync(dir).isDirectory()) throw new Unusable(`${dir}: this is a file; name the folder that was written`);
  } catch (e) {
    if (e instanceof Unusable) throw e;
    throw new Unusable(`${dir}: there is no such folder`);
  }
  const own = adopted(project, dir);
  if (own.problems.length) throw new Unusable(own.problems.map((p) => `${dir}: ${p}`).join("\n"));
  if (!own.seen)
    throw new Unusable(`${dir}: no program of this project was found there; name the folder that "plan --out" wrote`);
  for (const f of own.outside)
    note(`${dir}: ${f} was also changed outside of its marks; that is not taken: the plan writes it anew`);
  if (own.edits.length) await writeFileWhole(o.out ?? file, writeProject(withOwnCode(project, own)));
  if (o.json) print(JSON.stringify({ taken: own.taken, outside: own.outside }));
  else if (!own.taken.length) print(`nothing new between the marks of ${count(own.seen, "program")}`);
  else for (const t of own.taken) print(`taken: ${t.target} ${t.path}, ${t.region}: ${count(t.lines, "line")}`);
  return EXIT.fine;
}
