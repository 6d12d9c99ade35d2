import type { ProjectProblem } from "../core/project";

/** What a use case answers: an HTTP status, and the result or a sentence about what is wrong. */
export type Outcome<T> =
  | { status: 200 | 201; body: T }
  | {
      status: 400 | 404 | 409 | 413;
      body: { message: string; problems?: ProjectProblem[]; version?: number; document?: unknown };
    };
