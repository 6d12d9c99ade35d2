import { safePath } from "../core/formats/zip";
import { getProject } from "../db/projects";
import { heavy, type Job } from "./heavy";
import { database } from "./store";

export type Download = { ok: true; name: string; data: Uint8Array } | { ok: false; status: 404 | 409; message: string };

/** A file name from a title: plain characters only. */
export const fileName = (title: string) =>
  safePath(title.toLowerCase().replace(/\s+/g, "-").replace(/\//g, "-")).slice(0, 40) || "project";

/** A file made from a stored project in a thread; given up when nobody waits for it any more. */
async function file(
  id: string,
  job: (document: string) => Job,
  name: (title: string) => string,
  gone?: AbortSignal,
): Promise<Download> {
  const row = getProject(database(), id);
  if (!row) return { ok: false, status: 404, message: "There is no such project." };
  const made = await heavy().run(job(row.document), gone);
  return made.ok
    ? { ok: true, name: name(row.title), data: made.bytes! }
    : { ok: false, status: 409, message: made.message };
}

/** One print of a stored project as it is, on the paper asked for. */
export const printFile = (id: string, what: string | null, paper: string | null, gone?: AbortSignal) =>
  file(
    id,
    (document) => ({ kind: "print", document, what: what ?? "plan", paper: paper ?? "a4" }),
    (title) => `${fileName(title)}-${what ?? "plan"}.pdf`,
    gone,
  );

/** The plan of a stored project as one ZIP; with `target`, only that target's firmware. */
export const planZip = (id: string, target: string | null, gone?: AbortSignal) =>
  file(
    id,
    (document) => ({ kind: "plan", document, target }),
    (title) => `${fileName(title)}${target ? `-${fileName(target)}` : "-plan"}.zip`,
    gone,
  );

/** Everything of the lesson on a stored project as one ZIP. */
export const lessonZip = (id: string, paper: string | null, gone?: AbortSignal) =>
  file(
    id,
    (document) => ({ kind: "lesson", document, paper: paper ?? "a4" }),
    (title) => `${fileName(title)}-lesson.zip`,
    gone,
  );
