import type { Project } from "../schema";

/** A reference in a place of the document; what comes behind a dot is a pin. */
const TOKEN = /(?<![.\w])[A-Z]{1,3}\d{1,3}(?!\w)/g;
/** Words of people, and parts of their own: nothing in them is a reference. */
const TEXT = new Set([
  "title",
  "brief",
  "customParts",
  "code",
  "houseRules",
  "drawer",
  "label",
  "reason",
  "says",
  "part",
]);

function walk(v: unknown, names: ReadonlyMap<string, string>): unknown {
  const put = (s: string) => s.replace(TOKEN, (t) => names.get(t) ?? t);
  if (typeof v === "string") return put(v);
  if (Array.isArray(v)) return v.map((x) => walk(x, names));
  if (typeof v !== "object" || v === null) return v;
  return Object.fromEntries(Object.entries(v).map(([k, x]) => (TEXT.has(k) ? [k, x] : [put(k), walk(x, names)])));
}

/** The same project with some parts under other references. */
export const renamed = (project: Project, names: ReadonlyMap<string, string>): Project =>
  names.size ? (walk(project, names) as Project) : project;
