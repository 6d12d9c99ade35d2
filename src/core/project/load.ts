import { ownCodeProblems } from "./own-code";
import { ruleProblems } from "./rules";
import {
  findPin,
  isSoftwareBus,
  isShipped,
  optionProblems,
  printProblems,
  shippedId,
  validateOwnPart,
  validatePart,
  withOptions,
  type Catalogue,
  type Part,
} from "../parts/catalogue";
import { canonicalEnd, definitionOf, partLookup, splitEnd } from "./endpoint";
import { PROJECT_VERSION, ProjectSchema, type Project } from "./schema";

/** A reason why a project file cannot be used: the path inside it and a sentence that says what would be right. */
export interface ProjectProblem {
  path: string;
  message: string;
}
export type LoadResult = { ok: true; project: Project } | { ok: false; problems: ProjectProblem[] };

export const MAX_PROJECT_BYTES = 2_000_000;
const MAX_DEPTH = 40;

/** Migrations by the version they start from. Each takes the whole document one version further. */
const MIGRATIONS: Record<number, (doc: Record<string, unknown>) => Record<string, unknown>> = {};

const refuse = (path: string, message: string): LoadResult => ({ ok: false, problems: [{ path, message }] });

function tooDeep(value: unknown, depth = 0): boolean {
  if (depth > MAX_DEPTH) return true;
  if (typeof value !== "object" || value === null) return false;
  return Object.values(value).some((v) => tooDeep(v, depth + 1));
}

function nearest(word: string, all: readonly string[]): string {
  const shared = (a: string) => [...new Set(word.split(/[^a-z0-9]+/i))].filter((w) => w && a.includes(w)).length;
  const best = [...all].sort((a, b) => shared(b) - shared(a)).filter((a) => shared(a) > 1)[0];
  return best ? `; did you mean "${best}"?` : "";
}

function ownPartProblems(project: Project): ProjectProblem[] {
  return project.customParts.flatMap((p, i) => {
    const result = validateOwnPart(p);
    return result.ok ? [] : result.problems.map((x) => ({ path: `customParts/${i}/${x.path}`, message: x.message }));
  });
}

/** Choices of an own part that are sound one by one and make nonsense together, as the project makes them. */
function chosenProblems(project: Project): ProjectProblem[] {
  const own = new Map(project.customParts.map((p) => [p.id, p]));
  return project.parts.flatMap((p, i): ProjectProblem[] => {
    const part = own.get(p.part);
    if (!part?.options.length || optionProblems(part, p.options ?? {}).length) return [];
    try {
      const judged = validatePart(withOptions(part, p.options ?? {}));
      return judged.ok
        ? []
        : judged.problems.slice(0, 3).map((x) => ({
            path: `parts/${i}/options`,
            message: `these choices together make ${x.path}: ${x.message}`,
          }));
    } catch {
      return [{ path: `parts/${i}/options`, message: `the choices of ${part.id} can't be made together` }];
    }
  });
}

/** The groups of a part that a program could do, for a sentence. */
const softwareGroups = (part: Part) => {
  const list = part.groups.filter((g) => isSoftwareBus(g.kind)).map((g) => g.id);
  return list.length ? `; it has ${list.join(", ")}` : "";
};

function meaning(project: Project, catalogue: Catalogue): ProjectProblem[] {
  const out: ProjectProblem[] = [];
  const partOf = partLookup(project, catalogue);
  const seen = new Set<string>();
  const own = new Set(project.customParts.map((p) => p.id));
  // What decides about limits must be what its id says: own parts stand beside the shipped ones, never in their place.
  for (const [i, p] of project.customParts.entries()) {
    if (isShipped(catalogue, p.id)) out.push({ path: `customParts/${i}/id`, message: shippedId(p.id) });
    if (project.customParts.findIndex((x) => x.id === p.id) !== i)
      out.push({ path: `customParts/${i}/id`, message: `"${p.id}" is there twice; each part has an id of its own` });
  }
  const ids = [...catalogue.ids, ...own];
  const exists = (id: string) => own.has(id) || catalogue.get(id) !== undefined;
  for (const [i, p] of project.parts.entries()) {
    if (seen.has(p.ref))
      out.push({ path: `parts/${i}/ref`, message: `"${p.ref}" is used twice; references are unique` });
    seen.add(p.ref);
    const part = partOf(p.ref);
    if (!exists(p.part))
      out.push({ path: `parts/${i}/part`, message: `there is no part "${p.part}"${nearest(p.part, ids)}` });
    else if (part)
      for (const o of optionProblems(part, p.options ?? {}))
        out.push({ path: `parts/${i}/options/${o.key}`, message: o.message });
    const whole = part && p.print && definitionOf(project, catalogue, p);
    for (const message of whole ? printProblems(whole, p.print!) : []) out.push({ path: `parts/${i}/print`, message });
    for (const [key, value] of Object.entries(p.companions ?? {}))
      if (value && value !== "internal" && value.part && !exists(value.part))
        out.push({
          path: `parts/${i}/companions/${key}/part`,
          message: `there is no part "${value.part}"${nearest(value.part, ids)}`,
        });
  }
  for (const [i, p] of project.parts.entries()) {
    if (p.host && !seen.has(p.host)) out.push({ path: `parts/${i}/host`, message: `there is no part "${p.host}"` });
    else if (p.host && !partOf(p.host)?.board)
      out.push({ path: `parts/${i}/host`, message: `"${p.host}" is not a board or chip that can host parts` });
    const part = partOf(p.ref);
    if (p.sleep && part && !part.board)
      out.push({ path: `parts/${i}/sleep`, message: `"${p.ref}" is not a board; boards sleep between readings` });
    if (p.sleep && p.sleep.awake_s >= p.sleep.every_s)
      out.push({
        path: `parts/${i}/sleep/awake_s`,
        message: `awake for ${p.sleep.awake_s} s of every ${p.sleep.every_s} s leaves no time to sleep; awake must be less`,
      });
    for (const [k, label] of (p.wanted ?? []).entries())
      if (part && !findPin(part, label)?.need?.optional)
        out.push({ path: `parts/${i}/wanted/${k}`, message: `"${label}" is no optional pin of ${part.id}` });
    for (const [k, name] of (p.software ?? []).entries()) {
      const group = part?.groups.find((g) => g.id === name);
      if (part && !(group && isSoftwareBus(group.kind)))
        out.push({
          path: `parts/${i}/software/${k}`,
          message: `${part.id} has no group "${name}" that a program could do by itself${softwareGroups(part)}`,
        });
    }
  }
  out.push(...ownCodeProblems(project.code, seen), ...ruleProblems(project.rules ?? [], seen));
  for (const [i, b] of project.buses.entries())
    if (!seen.has(b.host))
      out.push({
        path: `buses/${i}/host`,
        message: `there is no part "${b.host}" in this project; a bus is one of a board`,
      });
  // What must stay apart is for safety: a member that is not there must not be passed over.
  for (const [i, list] of project.isolated.entries())
    for (const [k, member] of list.entries())
      if (!seen.has(member.split(".")[0]!))
        out.push({
          path: `isolated/${i}/${k}`,
          message: `there is no part "${member.split(".")[0]}" in this project; a member is a part (M1) or a side of one (M1.far)`,
        });
  for (const [i, link] of project.links.entries())
    for (const side of ["from", "to"] as const) {
      const { ref, pin } = splitEnd(link[side]);
      const part = partOf(ref);
      if (!seen.has(ref))
        out.push({ path: `links/${i}/${side}`, message: `there is no part "${ref}" in this project` });
      else if (part && !findPin(part, pin)) {
        const labels = part.pins.map((p) => p.label);
        const shown = labels.length > 16 ? `${labels.slice(0, 16).join(", ")} …` : labels.join(", ");
        out.push({
          path: `links/${i}/${side}`,
          message: `${part.id} has no pin "${pin}"; its pins are ${shown}`,
        });
      }
    }
  for (const [i, link] of project.links.entries()) {
    if (link.from === link.to) out.push({ path: `links/${i}`, message: "a link needs two different ends" });
    const kinds = [link.from, link.to].map((e) => {
      const part = partOf(splitEnd(e).ref);
      return part && findPin(part, splitEnd(e).pin)?.role;
    });
    if (kinds.includes("cable") && kinds.some((k) => k && k !== "cable"))
      out.push({
        path: `links/${i}`,
        message: "a USB socket takes a cable to another USB socket, not a wire to a pin",
      });
  }
  return out;
}

/** Puts every endpoint into its printed spelling, so that `D1.A`–`B1.P6` and `B1.GP4` are the same everywhere. */
function canonical(project: Project, catalogue: Catalogue): Project {
  const partOf = partLookup(project, catalogue);
  const links = project.links.map((l) => ({
    ...l,
    from: canonicalEnd(l.from, partOf),
    to: canonicalEnd(l.to, partOf),
  }));
  return { ...project, links };
}

/**
 * Validates a project document of unknown origin. Unknown keys are refused with their path, a newer version with a
 * sentence, an older one is migrated. On success every endpoint is in its printed spelling.
 */
export function loadProject(data: unknown, catalogue: Catalogue): LoadResult {
  if (typeof data !== "object" || data === null || Array.isArray(data))
    return refuse("", "a project file is one JSON object");
  if (tooDeep(data)) return refuse("", `the document is nested deeper than ${MAX_DEPTH} levels`);
  let doc = data as Record<string, unknown>;
  if (doc.format !== "young-lattice-project")
    return refuse("format", 'this is not a project file: "format" must be "young-lattice-project"');
  if (typeof doc.version !== "number" || !Number.isInteger(doc.version) || doc.version < 1)
    return refuse("version", `"version" must be a whole number from 1 to ${PROJECT_VERSION}`);
  if (doc.version > PROJECT_VERSION)
    return refuse(
      "version",
      `this file is version ${doc.version}; this program reads up to version ${PROJECT_VERSION}. Update the program to open it`,
    );
  while ((doc.version as number) < PROJECT_VERSION) doc = MIGRATIONS[doc.version as number]!(doc);
  const parsed = ProjectSchema.safeParse(doc);
  if (!parsed.success)
    return {
      ok: false,
      problems: parsed.error.issues.flatMap((i): ProjectProblem[] =>
        i.code === "unrecognized_keys"
          ? i.keys.map((k) => ({
              path: [...i.path, k].join("/"),
              message: `the key "${k}" is not known here; remove it`,
            }))
          : [{ path: i.path.join("/"), message: i.message }],
      ),
    };
  // Each stands on the one before.
  let problems = ownPartProblems(parsed.data);
  if (!problems.length) problems = chosenProblems(parsed.data);
  if (!problems.length) problems = meaning(parsed.data, catalogue);
  return problems.length ? { ok: false, problems } : { ok: true, project: canonical(parsed.data, catalogue) };
}

/** Reads project text: size limit, JSON, then `loadProject`. */
export function readProject(text: string, catalogue: Catalogue): LoadResult {
  if (text.length > MAX_PROJECT_BYTES)
    return refuse("", `the file is larger than ${MAX_PROJECT_BYTES / 1e6} MB; a project file is far smaller`);
  try {
    return loadProject(JSON.parse(text.replace(/^\uFEFF/, "")), catalogue);
  } catch (e) {
    return refuse("", `the file is not valid JSON: ${e instanceof Error ? e.message.slice(0, 160) : e}`);
  }
}

/** The project as file text: stable key order of the schema, two spaces, final newline. */
export const writeProject = (project: Project) => `${JSON.stringify(project, null, 2)}\n`;
