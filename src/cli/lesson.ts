import { circuitOf } from "../core/circuit";
import { lessonPack } from "../core/formats/lesson-pack";
import { changesSince, itemsOf, lessonOf } from "../core/lesson";
import { applyEdit, EditSchema, LESSON_AIMS, LESSON_DEFAULT, LESSON_LEVELS, type Edit } from "../core/project";
import { count } from "../core/quantity/count";
import { catalogue, EXIT, loadFile, note, planFonts, print, printJson, Unusable } from "./io";
import { expectReplaceable, isEmptyOrMissing, writePlanFolder } from "./plan-folder";

interface Options {
  out?: string;
  level?: string;
  minutes?: string;
  aims?: string[];
  benches?: string;
  paper?: string;
  force?: boolean;
  json?: boolean;
}

/** The wishes of the command line as edits; refused with what would be right. */
function edits(o: Options): Edit[] {
  const wish = {
    ...(o.level !== undefined && { level: o.level }),
    ...(o.minutes !== undefined && { minutes: Number(o.minutes) }),
    ...(o.aims && { aims: o.aims }),
  };
  const list: unknown[] = [
    { type: "setLesson", lesson: wish },
    ...(o.benches !== undefined ? [{ type: "setKit", kit: { benches: Number(o.benches) } }] : []),
  ];
  return list.map((e) => {
    const read = EditSchema.safeParse(e);
    if (read.success) return read.data;
    throw new Unusable(
      `a lesson has --level ${Object.keys(LESSON_LEVELS).join(" or ")}, --minutes 20 to 480, --benches 1 to 60, and --aims among ${Object.keys(LESSON_AIMS).join(", ")}`,
    );
  });
}

/** What a lesson on a plan would be; with `--out` the whole pack is written. */
export async function lessonCommand(file: string, o: Options): Promise<number> {
  const paper = o.paper ?? "a4";
  if (paper !== "a4" && paper !== "letter") throw new Unusable(`--paper ${paper}: a4 or letter`);
  const project = edits(o).reduce((p, e) => applyEdit(p, e, catalogue), loadFile(file));
  const c = circuitOf(project, catalogue);
  const lesson = lessonOf(c, project.lesson ?? LESSON_DEFAULT);
  const changes = project.lesson?.made ? changesSince(project.lesson.made.items, itemsOf(lesson)) : [];
  if (o.out) {
    const empty = await isEmptyOrMissing(o.out);
    if (!empty && !o.force)
      throw new Unusable(`${o.out}: the folder is not empty; name another one, or add --force to replace it`);
    if (!empty) await expectReplaceable(o.out);
    const kept = await writePlanFolder(o.out, await lessonPack(c, planFonts(), paper));
    if (kept.length) note(`${o.out}: kept, as no plan wrote it: ${kept.join(", ")}`);
  }
  if (o.json) printJson({ ...lesson, changes });
  else {
    print(
      `${lesson.title}: ${count(lesson.sessions.length, "meeting")} of ${lesson.sessions.map((s) => s.minutes).join(", ")} minutes, ${count(lesson.benches, "bench", "benches")}`,
    );
    for (const s of lesson.sessions) print(`  ${s.blocks.map((b) => `${b.what} (${b.minutes})`).join("; ")}`);
    for (const q of lesson.questions) print(`? ${q.ask}\n  ${q.answer}`);
    for (const r of lesson.risks) print(`! ${r.what} ${r.does} (${r.where})`);
    for (const x of changes) print(`changed, ${x.section}: ${x.says}`);
  }
  return EXIT.fine;
}
