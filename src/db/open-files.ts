import type { Db } from "./database";
import { listOwnParts } from "./own-parts";
import { getProject, listProjects } from "./projects";

const README = `Young Lattice: all projects and own parts as open files.

projects/  one JSON file a project; open it with "Open a file…", or check it with: lattice check FILE
parts/     own parts, one JSON file each; they come into the Parts station by "Own parts"

Versions, the bin and trainer results are in a backup, not here.
`;

const slug = (title: string) =>
  title
    .toLowerCase()
    .normalize("NFKD")
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 40) || "project";
/** As a person reads it; what is no JSON any more goes out as it is. */
function pretty(json: string): string {
  try {
    return `${JSON.stringify(JSON.parse(json), null, 2)}\n`;
  } catch {
    return json;
  }
}

/** All projects and own parts as open files, by name: letters, digits, points and dashes only. */
export function openFiles(db: Db): Record<string, string> {
  const files: Record<string, string> = { "README.txt": README };
  for (const p of listProjects(db)) {
    const row = getProject(db, p.id);
    if (row) files[`projects/${slug(row.title)}-${row.id}.lattice.json`] = pretty(row.document);
  }
  for (const p of listOwnParts(db)) files[`parts/${slug(p.id)}.json`] = pretty(p.document);
  return files;
}
