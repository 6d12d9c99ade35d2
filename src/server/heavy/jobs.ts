/** What a thread makes, and what comes of it. `document` is the stored text of a project. */
export type Job =
  | { kind: "glance"; document: string }
  | { kind: "print"; document: string; what: string; paper: string }
  | { kind: "lesson"; document: string; paper: string }
  /** `document`: a course with the projects of its lessons, as JSON. */
  | { kind: "course"; document: string; paper: string }
  | { kind: "plan"; document: string; target: string | null };

/** Made, or a sentence about why not. `bytes` is a file; `value` is data. */
export type Made = { ok: true; bytes?: Uint8Array; value?: unknown } | { ok: false; message: string };
