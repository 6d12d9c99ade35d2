import fs from "node:fs";
import { courseOf, CourseSchema, readCourseFile, type Course } from "../core/course";
import { coursePack } from "../core/formats/course-pack";
import { orderWords } from "../core/course/types";
import type { Project } from "../core/project";
import { count } from "../core/quantity/count";
import { catalogue, EXIT, loadFile, note, planFonts, print, printJson, Unusable } from "./io";
import { expectReplaceable, isEmptyOrMissing, writePlanFolder } from "./plan-folder";

interface Options {
  title?: string;
  benches?: string;
  lead?: string;
  stays?: string[];
  paper?: string;
  out?: string;
  force?: boolean;
  json?: boolean;
}

const MOST_BYTES = 40_000_000;

/** A course file, or projects in the order of their weeks. */
function given(files: readonly string[], o: Options): { course: Course; projects: Map<string, Project> } {
  const [first] = files;
  if (files.length === 1 && first!.endsWith("course.json")) {
    if (fs.statSync(first!).size > MOST_BYTES) throw new Unusable(`${first}: larger than ${MOST_BYTES / 1e6} MB`);
    let document: unknown;
    try {
      document = JSON.parse(fs.readFileSync(first!, "utf8"));
    } catch {
      throw new Unusable(`${first}: this is no JSON`);
    }
    const read = readCourseFile(document, catalogue);
    if (!read.ok) throw new Unusable(read.problems.map((p) => `${first}: ${p.path}: ${p.message}`).join("\n"));
    return read;
  }
  const projects = new Map(files.map((f, i) => [`lesson-${i + 1}`, loadFile(f)]));
  const stays = new Set((o.stays ?? []).map(Number));
  const read = CourseSchema.safeParse({
    format: "young-lattice-course",
    version: 1,
    title: o.title ?? "Course",
    benches: Number(o.benches ?? 1),
    lead_weeks: Number(o.lead ?? 2),
    lessons: [...projects.keys()].map((project, i) => ({ project, week: i + 1, stays: stays.has(i + 1) })),
  });
  if (!read.success)
    throw new Unusable("a course has --benches 1 to 60, --lead 0 to 26 weeks, and at most 40 projects, one a week");
  return { course: read.data, projects };
}

/** Several projects on one kit: what to have, to order, to put into boxes, to test. */
export async function courseCommand(files: readonly string[], o: Options): Promise<number> {
  const paper = o.paper ?? "a4";
  if (paper !== "a4" && paper !== "letter") throw new Unusable(`--paper ${paper}: a4 or letter`);
  const { course, projects } = given(files, o);
  const v = courseOf(course, projects, catalogue);
  if (o.out) {
    const empty = await isEmptyOrMissing(o.out);
    if (!empty && !o.force)
      throw new Unusable(`${o.out}: the folder is not empty; name another one, or add --force to replace it`);
    if (!empty) await expectReplaceable(o.out);
    const kept = await writePlanFolder(o.out, await coursePack(course, projects, catalogue, planFonts(), paper));
    if (kept.length) note(`${o.out}: kept, as no plan wrote it: ${kept.join(", ")}`);
  }
  if (o.json) printJson(v);
  else {
    print(
      `${v.title}: ${count(v.lessons.length, "lesson")}, ${count(v.benches, "bench", "benches")}; a bench needs ${count(v.together, "piece")} instead of ${v.apart}`,
    );
    for (const order of v.orders) {
      print(`${orderWords(order)}:`);
      for (const l of order.lines) print(`  ${l.number} × ${l.what}`);
    }
  }
  return EXIT.fine;
}
