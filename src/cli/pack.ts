import fs from "node:fs";
import { writeProject } from "../core/project";
import { isPacked, packPlan, unpackPlan } from "../core/share";
import { catalogue, EXIT, loadFile, print, Unusable, writeFileWhole } from "./io";

const MOST_BYTES = 1_000_000;

/** The plan of a project file as one line of letters. */
export function packCommand(file: string): number {
  print(packPlan(loadFile(file)));
  return EXIT.fine;
}

function textOf(given: string): string {
  if (given === "-") return fs.readFileSync(0, "utf8");
  if (isPacked(given)) return given;
  if (!fs.existsSync(given)) throw new Unusable(`${given}: neither a plan as text nor a file that holds one`);
  if (fs.statSync(given).size > MOST_BYTES) throw new Unusable(`${given}: larger than ${MOST_BYTES / 1e6} MB`);
  return fs.readFileSync(given, "utf8");
}

/** A project file from such a line. */
export async function unpackCommand(given: string, o: { out: string }): Promise<number> {
  const read = unpackPlan(textOf(given), catalogue);
  if (!read.ok)
    throw new Unusable(read.problems.map((p) => (p.path ? `${p.path}: ${p.message}` : p.message)).join("\n"));
  await writeFileWhole(o.out, writeProject(read.project));
  print(`${read.project.title}: ${read.project.parts.length} parts, ${read.project.links.length} links, in ${o.out}`);
  return EXIT.fine;
}
