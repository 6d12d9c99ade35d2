import type { Db } from "./database";

export interface CourseRow {
  id: string;
  title: string;
  document: string;
  version: number;
  updated_at: string;
}

export const listCourses = (db: Db): Omit<CourseRow, "document">[] =>
  db.prepare("SELECT id, title, version, updated_at FROM courses ORDER BY updated_at DESC, id").all() as Omit<
    CourseRow,
    "document"
  >[];

export const getCourse = (db: Db, id: string): CourseRow | undefined =>
  db.prepare("SELECT * FROM courses WHERE id = ?").get(id) as CourseRow | undefined;

export function insertCourse(db: Db, id: string, title: string, document: string): CourseRow {
  const updated_at = new Date().toISOString();
  db.prepare("INSERT INTO courses (id, title, document, version, updated_at) VALUES (?, ?, ?, 1, ?)").run(
    id,
    title,
    document,
    updated_at,
  );
  return { id, title, document, version: 1, updated_at };
}

/** Saves over the version that it was based on; null where somebody else has saved since. */
export function saveCourse(db: Db, id: string, base: number, title: string, document: string): number | null {
  const done = db
    .prepare(
      "UPDATE courses SET title = ?, document = ?, version = version + 1, updated_at = ? WHERE id = ? AND version = ?",
    )
    .run(title, document, new Date().toISOString(), id, base);
  return done.changes ? base + 1 : null;
}

export const deleteCourse = (db: Db, id: string): boolean =>
  db.prepare("DELETE FROM courses WHERE id = ?").run(id).changes > 0;
