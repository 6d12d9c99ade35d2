import { z } from "zod";
import type { Catalogue } from "../parts/catalogue";
import { loadProject, type Project, type ProjectProblem } from "../project";
import { CourseSchema, type Course } from "./schema";

/** A course as a file: with the projects of its lessons in it, by the names that the lessons use. */
const FileSchema = z.strictObject({
  course: CourseSchema,
  projects: z.record(z.string().max(60), z.unknown()),
});

export type CourseRead =
  { ok: true; course: Course; projects: Map<string, Project> } | { ok: false; problems: ProjectProblem[] };

/** Reads a course with its projects: each is judged as a project file is; all that is wrong is told, with where. */
export function readCourseFile(document: unknown, catalogue: Catalogue): CourseRead {
  const file = FileSchema.safeParse(document);
  if (!file.success)
    return { ok: false, problems: file.error.issues.map((i) => ({ path: i.path.join("/"), message: i.message })) };
  const problems: ProjectProblem[] = [];
  const projects = new Map<string, Project>();
  for (const [id, doc] of Object.entries(file.data.projects)) {
    const read = loadProject(doc, catalogue);
    if (read.ok) projects.set(id, read.project);
    else problems.push(...read.problems.map((p) => ({ ...p, path: `projects/${id}/${p.path}` })));
  }
  return problems.length ? { ok: false, problems } : { ok: true, course: file.data.course, projects };
}
