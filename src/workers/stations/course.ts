import { courseOf, CourseSchema, type Course, type CourseView } from "../../core/course";
import { loadProject, type Project } from "../../core/project";
import { catalogue, need, needFor } from "../loading";

/** Course: several projects on one kit. */
export const courseApi = {
  /** What a course takes; projects that can't be read are told by their names. */
  async courseView(
    course: Course,
    documents: Record<string, unknown>,
  ): Promise<{ view: CourseView; damaged: string[] }> {
    const projects = new Map<string, Project>();
    const damaged: string[] = [];
    for (const [id, doc] of Object.entries(documents)) {
      const parts = (doc as { parts?: { part?: unknown }[] } | null)?.parts ?? [];
      await need(parts.flatMap((p) => (typeof p.part === "string" ? [p.part] : [])));
      const read = loadProject(doc, catalogue);
      if (!read.ok) {
        damaged.push(String((doc as { title?: unknown } | null)?.title ?? id));
        continue;
      }
      await needFor(read.project);
      projects.set(id, read.project);
    }
    return { view: courseOf(CourseSchema.parse(course), projects, catalogue), damaged };
  },
};
