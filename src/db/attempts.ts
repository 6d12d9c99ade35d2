import type { Db } from "./database";

/** One try of a learner to find a hidden fault. */
export interface AttemptRow {
  id: string;
  project_id: string;
  learner: string;
  level: string;
  seed: number;
  plan: string;
  points: number;
  measured: number;
  best: number;
  hints: number;
  wrong: number;
  minutes: number;
  found: 0 | 1;
  at: string;
}

/** So many of a project are kept; the oldest go first. */
const MOST = 5000;

export function insertAttempt(db: Db, row: AttemptRow): void {
  db.transaction(() => {
    db.prepare(
      `INSERT INTO attempts (id, project_id, learner, level, seed, plan, points, measured, best, hints, wrong, minutes, found, at)
       VALUES (@id, @project_id, @learner, @level, @seed, @plan, @points, @measured, @best, @hints, @wrong, @minutes, @found, @at)`,
    ).run(row);
    db.prepare(
      `DELETE FROM attempts WHERE project_id = ? AND id NOT IN
         (SELECT id FROM attempts WHERE project_id = ? ORDER BY at DESC, id LIMIT ?)`,
    ).run(row.project_id, row.project_id, MOST);
  })();
}

/** Newest first. */
export const listAttempts = (db: Db, project: string): AttemptRow[] =>
  db.prepare("SELECT * FROM attempts WHERE project_id = ? ORDER BY at DESC, id LIMIT 500").all(project) as AttemptRow[];

export const deleteAttempts = (db: Db, project: string): number =>
  db.prepare("DELETE FROM attempts WHERE project_id = ?").run(project).changes;
