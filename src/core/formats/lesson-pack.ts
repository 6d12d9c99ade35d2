import type { Circuit } from "../circuit";
import { kitTable, partsList, wireTable } from "../build";
import { lessonOf } from "../lesson";
import { fingerprint, writeProject } from "../project";
import { toCsv } from "./csv";
import type { Fonts, Paper } from "./pdf";

/** The fault set as a table: which level and number to deal to which bench, and the key. */
export const faultsCsv = (c: Circuit): string =>
  toCsv(
    ["bench", "level", "number", "noticed", "fault", "mend", "measurements", "plan"],
    lessonOf(c).faults.map((f) => [
      f.bench,
      f.level,
      f.seed,
      f.complaint.join(" "),
      f.fault,
      f.mend,
      f.best,
      fingerprint(c.project),
    ]),
  );

/** Everything of a lesson as files: sheets, teacher's pages, slides, kit labels, the paper exercise, faults, what to lay out. */
export async function lessonPack(
  c: Circuit,
  fonts: Fonts,
  paper: Paper = "a4",
): Promise<Record<string, string | Uint8Array>> {
  const { PRINTS } = await import("./pdf");
  const l = lessonOf(c);
  const kit = { spares_percent: {}, ...c.project.kit, benches: l.benches };
  const { fields, rows } = kitTable(partsList(c), wireTable(c), kit);
  return {
    "learner-sheets.pdf": await PRINTS.sheets(c, fonts, paper),
    "teacher.pdf": await PRINTS.teacher(c, fonts, paper),
    "slides.pdf": await PRINTS.slides(c, fonts, paper),
    "kit-labels.pdf": await PRINTS.kits(c, fonts, paper),
    "on-paper.pdf": await PRINTS.paper(c, fonts, paper),
    "kit.csv": toCsv(fields, rows),
    ...(l.faults.length && { "faults.csv": faultsCsv(c) }),
    "lesson.json": `${JSON.stringify(l, null, 2)}\n`,
    "project.lattice.json": writeProject(c.project),
  };
}
