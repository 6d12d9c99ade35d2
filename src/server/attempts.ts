import { z } from "zod";
import * as rows from "../db/attempts";
import { getProject } from "../db/projects";
import { newId } from "./ids";
import type { Outcome } from "./outcome";
import { database } from "./store";

const count = z.number().int().min(0).max(1000);

const AttemptSchema = z.strictObject({
  learner: z.string().trim().max(60),
  level: z.string().min(1).max(20),
  seed: z.number().int().min(0).max(4_294_967_295),
  plan: z.string().regex(/^[A-Z]{8}$/),
  points: z.number().int().min(0).max(100),
  measured: count,
  best: count,
  hints: count,
  wrong: count,
  minutes: z.number().min(0).max(100_000),
  found: z.boolean(),
});
export type NewAttempt = z.infer<typeof AttemptSchema>;

const notFound = {
  status: 404 as const,
  body: { message: "There is no such project. It may have been deleted in another tab." },
};

/** Puts an attempt on record. */
export function addAttempt(project: string, input: unknown): Outcome<{ id: string }> {
  if (!getProject(database(), project)) return notFound;
  const parsed = AttemptSchema.safeParse(input);
  if (!parsed.success)
    return {
      status: 400,
      body: {
        message: `This is no attempt: ${parsed.error.issues
          .map((i) => `${i.path.join(".")}: ${i.message}`)
          .join("; ")
          .slice(0, 300)}`,
      },
    };
  const a = parsed.data;
  const id = newId();
  rows.insertAttempt(database(), {
    ...a,
    id,
    project_id: project,
    found: a.found ? 1 : 0,
    at: new Date().toISOString(),
  });
  return { status: 201, body: { id } };
}

/** What the learners of a project did, newest first. */
export function attempts(project: string): Outcome<{ attempts: rows.AttemptRow[] }> {
  if (!getProject(database(), project)) return notFound;
  return { status: 200, body: { attempts: rows.listAttempts(database(), project) } };
}

/** Takes all attempts of a project off the record. */
export function clearAttempts(project: string): Outcome<{ removed: number }> {
  if (!getProject(database(), project)) return notFound;
  return { status: 200, body: { removed: rows.deleteAttempts(database(), project) } };
}
