import { courseOf, type Course, type CourseView } from "../course";
import type { Catalogue } from "../parts/catalogue";
import { writeProject, type Project } from "../project";
import { toCsv } from "./csv";
import type { Fonts, Paper } from "./pdf";

/** Every kind of part of a course: for a bench, for all, what to buy, where it is used. */
export const courseCsv = (v: CourseView): string =>
  toCsv(
    [
      "part",
      "name",
      "value",
      "box",
      "per_bench",
      "needed_most_in",
      "together",
      "spares",
      "owned",
      "buy",
      "first_week",
      "lessons",
    ],
    v.parts.map((p) => [
      p.part,
      p.name,
      p.value,
      p.box,
      p.most,
      p.at,
      p.together,
      p.spares,
      p.owned,
      p.buy,
      p.firstWeek,
      p.lessons.join("; "),
    ]),
  );

export const ordersCsv = (v: CourseView): string =>
  toCsv(
    ["order_in_week", "for_week", "number", "what", "part"],
    v.orders.flatMap((o) => o.lines.map((l) => [o.week, o.for, l.number, l.what, l.part])),
  );

export const returnsCsv = (v: CourseView): string =>
  toCsv(
    ["week", "lesson", "number", "what", "test"],
    v.returns.flatMap((r) => r.back.map((b) => [r.week, r.title, b.number, b.what, b.test])),
  );

/** Everything of a course as files. */
export async function coursePack(
  course: Course,
  projects: ReadonlyMap<string, Project>,
  catalogue: Catalogue,
  fonts: Fonts,
  paper: Paper = "a4",
): Promise<Record<string, string | Uint8Array>> {
  const v = courseOf(course, projects, catalogue);
  const { printCourse } = await import("./pdf/course");
  return {
    "course.pdf": await printCourse(v, fonts, paper),
    "parts.csv": courseCsv(v),
    "orders.csv": ordersCsv(v),
    "returns.csv": returnsCsv(v),
    "course.json": `${JSON.stringify({ course, projects: Object.fromEntries([...projects].map(([k, p]) => [k, JSON.parse(writeProject(p)) as unknown])) }, null, 2)}\n`,
  };
}
