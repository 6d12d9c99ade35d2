import { z } from "zod";
import { shippedCatalogue } from "../core/parts/catalogue/shipped";
import { emptyProject, loadProject, MAX_PROJECT_BYTES, TitleSchema, writeProject, type Project } from "../core/project";
import * as rows from "../db/projects";
import { withClassRules } from "./class-rules";
import { getDrawer } from "./drawer";
import { newId } from "./ids";
import type { Outcome } from "./outcome";
import { database } from "./store";

const notFound = {
  status: 404 as const,
  body: { message: "There is no such project. It may have been deleted in another tab." },
};

export interface StoredProject {
  id: string;
  version: number;
  document: unknown;
  /** The version that this is, where the newest one is damaged. */
  from?: number;
}

const stored = (r: rows.ProjectRow): StoredProject => ({
  id: r.id,
  version: r.version,
  document: JSON.parse(r.document),
});

function validated(document: unknown) {
  const result = loadProject(document, shippedCatalogue());
  if (!result.ok)
    return {
      ok: false as const,
      refused: { status: 400 as const, body: { message: "This project can't be used.", problems: result.problems } },
    };
  return { ok: true as const, project: result.project };
}

const CreateSchema = z.strictObject({ title: TitleSchema.optional(), document: z.unknown().optional() });
const SaveSchema = z.strictObject({
  base: z.number().int().min(1),
  document: z.unknown(),
  summary: z.string().max(300).default(""),
  saveId: z.string().min(8).max(64).optional(),
  /** One side of two that were put together: it is kept as a version before this one. */
  side: z.unknown().optional(),
});

export const list = () => rows.listProjects(database());

/** A new project: empty with a title, or from a document that is validated in full first. */
export function create(input: unknown): Outcome<StoredProject> {
  const parsed = CreateSchema.safeParse(input);
  if (!parsed.success) return { status: 400, body: { message: "Give a title, or a project document." } };
  if (parsed.data.document === undefined) {
    const project = withClassRules({ ...emptyProject(parsed.data.title ?? "Untitled project"), drawer: getDrawer() });
    return {
      status: 201,
      body: stored(rows.insertProject(database(), newId(), project.title, writeProject(project), "new project")),
    };
  }
  const v = validated(parsed.data.document);
  if (!v.ok) return v.refused;
  return {
    status: 201,
    body: stored(rows.insertProject(database(), newId(), v.project.title, writeProject(v.project), "imported")),
  };
}

/** What is stored is no JSON any more: a damaged disk, another program. */
const damaged = {
  status: 409 as const,
  body: {
    message:
      "The data of this project are damaged, and so are all its versions. All other projects are as they were. Restore a backup to get this one back.",
  },
};
const asJson = (text: string): { document: unknown } | null => {
  try {
    return { document: JSON.parse(text) };
  } catch {
    return null;
  }
};

export function get(id: string): Outcome<StoredProject> {
  const row = rows.getProject(database(), id);
  if (!row) return notFound;
  if (asJson(row.document)) return { status: 200, body: stored(row) };
  // The newest of its versions that can be read stands in for it; the next save puts that in its place.
  for (const r of rows.listRevisions(database(), id)) {
    const read = asJson(rows.getRevision(database(), id, r.version) ?? "");
    if (read) return { status: 200, body: { id, version: row.version, document: read.document, from: r.version } };
  }
  return damaged;
}

/** Whether two documents differ in their ticks and readings only. */
function marksOnly(before: string, after: Project): boolean {
  try {
    const old = JSON.parse(before) as Project;
    return (
      JSON.stringify(old.bench) !== JSON.stringify(after.bench) &&
      JSON.stringify({ ...old, bench: [] }) ===
        JSON.stringify({ ...(JSON.parse(writeProject(after)) as Project), bench: [] })
    );
  } catch {
    return false;
  }
}

/** Saves on top of a version. A stale save writes nothing and answers with what is stored now. */
export function save(id: string, input: unknown): Outcome<{ version: number }> {
  const parsed = SaveSchema.safeParse(input);
  if (!parsed.success) return { status: 400, body: { message: "A save needs base, document and summary." } };
  const v = validated(parsed.data.document);
  if (!v.ok) return v.refused;
  const text = writeProject(v.project);
  if (text.length > MAX_PROJECT_BYTES) return { status: 413, body: { message: "This project is too large to save." } };
  const side = parsed.data.side === undefined ? undefined : validated(parsed.data.side);
  if (side && !side.ok) return side.refused;
  const { base, summary, saveId } = parsed.data;
  const result = rows.saveProject(database(), id, base, v.project.title, text, summary, {
    isMark: (before) => marksOnly(before, v.project),
    saveId,
    side: side && { document: writeProject(side.project), summary: "one side, before both were put together" },
  });
  if (result.ok) return { status: 200, body: { version: result.version } };
  if (!result.row) return notFound;
  return {
    status: 409,
    body: {
      message: "This project was changed somewhere else since it was opened here.",
      version: result.row.version,
      document: asJson(result.row.document)?.document,
    },
  };
}

export function remove(id: string): Outcome<{ deleted: true }> {
  return rows.deleteProject(database(), id) ? { status: 200, body: { deleted: true } } : notFound;
}

export function revisions(id: string): Outcome<rows.RevisionRow[]> {
  return rows.getProject(database(), id) ? { status: 200, body: rows.listRevisions(database(), id) } : notFound;
}

export function revision(id: string, version: number): Outcome<{ document: unknown }> {
  const text = rows.getProject(database(), id) && rows.getRevision(database(), id, version);
  const read = text === undefined ? null : asJson(text);
  return read ? { status: 200, body: read } : text === undefined ? notFound : damaged;
}
