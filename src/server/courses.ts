import { z } from "zod";
import { CourseSchema, emptyCourse, type Course } from "../core/course";
import * as rows from "../db/courses";
import { getProject } from "../db/projects";
import { fileName } from "./downloads";
import { heavy } from "./heavy";
import { newId } from "./ids";
import type { Outcome } from "./outcome";
import { database } from "./store";

export interface StoredCourse {
  id: string;
  version: number;
  course: Course;
}
const notFound = {
  status: 404 as const,
  body: { message: "There is no such course. It may have been deleted in another tab." },
};

const CreateSchema = z.strictObject({ title: CourseSchema.shape.title });
const SaveSchema = z.strictObject({ base: z.number().int().min(1), course: CourseSchema });
const told = (e: z.ZodError) =>
  e.issues
    .map((i) => `${i.path.join("/") || "course"}: ${i.message}`)
    .join("; ")
    .slice(0, 400);

export const courses = () => rows.listCourses(database());

export function createCourse(input: unknown): Outcome<StoredCourse> {
  const parsed = CreateSchema.safeParse(input);
  if (!parsed.success) return { status: 400, body: { message: `A course has a name: ${told(parsed.error)}` } };
  const course = emptyCourse(parsed.data.title);
  const row = rows.insertCourse(database(), newId(), course.title, JSON.stringify(course));
  return { status: 201, body: { id: row.id, version: row.version, course } };
}

export function readCourse(id: string): Outcome<StoredCourse> {
  const row = rows.getCourse(database(), id);
  if (!row) return notFound;
  const parsed = CourseSchema.safeParse(JSON.parse(row.document));
  if (!parsed.success)
    return { status: 409, body: { message: `The data of this course are damaged: ${told(parsed.error)}` } };
  return { status: 200, body: { id, version: row.version, course: parsed.data } };
}

/** Saves a course; one that somebody else has saved since is refused with the version that is there. */
export function saveCourse(id: string, input: unknown): Outcome<{ version: number }> {
  const parsed = SaveSchema.safeParse(input);
  if (!parsed.success) return { status: 400, body: { message: `The course was not saved: ${told(parsed.error)}` } };
  const { base, course } = parsed.data;
  const version = rows.saveCourse(database(), id, base, course.title, JSON.stringify(course));
  if (version !== null) return { status: 200, body: { version } };
  const now = rows.getCourse(database(), id);
  return now
    ? {
        status: 409,
        body: { message: "This course was changed in another tab. Open it again to see how.", version: now.version },
      }
    : notFound;
}

export const removeCourse = (id: string): Outcome<{ removed: true }> =>
  rows.deleteCourse(database(), id) ? { status: 200, body: { removed: true } } : notFound;

/** The course with the documents of its lessons, as one file. */
export function courseFile(id: string): Outcome<{ course: Course; projects: Record<string, unknown> }> {
  const read = readCourse(id);
  if (read.status !== 200) return read as Outcome<never>;
  const { course } = read.body as StoredCourse;
  const projects: Record<string, unknown> = {};
  for (const l of course.lessons) {
    const row = getProject(database(), l.project);
    if (row) projects[l.project] = JSON.parse(row.document);
  }
  return { status: 200, body: { course, projects } };
}

/** Everything of a course as one ZIP: what to have, to order, to put into boxes, to test. */
export async function courseZip(
  id: string,
  paper: string | null,
  gone?: AbortSignal,
): Promise<{ ok: true; name: string; data: Uint8Array } | { ok: false; status: number; message: string }> {
  const read = courseFile(id);
  if (read.status !== 200)
    return { ok: false, status: read.status, message: (read.body as { message: string }).message };
  const body = read.body as { course: Course };
  const made = await heavy().run({ kind: "course", document: JSON.stringify(read.body), paper: paper ?? "a4" }, gone);
  return made.ok
    ? { ok: true, name: `${fileName(body.course.title)}-course.zip`, data: made.bytes! }
    : { ok: false, status: 409, message: made.message };
}
