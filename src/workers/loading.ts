import { summarise, type Catalogue, type Part, type PartSummary } from "../core/parts/catalogue";
import { makeSearch, type PartSearch } from "../core/parts/catalogue/search";
import { FIX_PARTS } from "../core/checks/fix-parts";
import { makeMatcher, type ListMatcher } from "../core/parts/lists";
import type { Edit, Project } from "../core/project";

/** Where definitions come from: this app's own server in the browser, the shipped files in tests. */
export interface PartSource {
  summaries(): Promise<PartSummary[]>;
  details(ask: { ids?: string[]; boards?: boolean }): Promise<Part[]>;
}

const json = async <T>(path: string): Promise<T> => {
  const r = await fetch(path);
  if (!r.ok) throw new Error("The app's server does not answer, so part data can't be read.");
  return (await r.json()) as T;
};
const server: PartSource = {
  summaries: () => json("/api/parts"),
  details: (ask) =>
    json(
      `/api/parts/details?${new URLSearchParams({ ...(ask.ids && { ids: ask.ids.join(",") }), ...(ask.boards && { boards: "1" }) })}`,
    ),
};

let source = server;
const store = new Map<string, Part>();
const absent = new Set<string>();
let allBoards = false;
let list: Promise<PartSummary[]> | undefined;
let ids: string[] = [];

/** The catalogue as far as it has been loaded. Functions of the core see only what `need` has brought in. */
export const catalogue: Catalogue = {
  get ids() {
    return ids;
  },
  get parts() {
    return [...store.values()];
  },
  get: (id) => store.get(id),
};

/** Takes definitions from elsewhere than the server, and forgets what was loaded. For tests. */
export function usePartSource(other: PartSource) {
  source = other;
  store.clear();
  absent.clear();
  allBoards = false;
  list = undefined;
  index = undefined;
}

export async function summaries(): Promise<PartSummary[]> {
  list ??= source.summaries();
  const all = await list.catch((e: unknown) => {
    list = undefined;
    throw e;
  });
  ids = all.map((s) => s.id);
  return all;
}

const MOST_AT_ONCE = 60;

/** Loads definitions that are not here yet, and what those need around them. Unknown ids are left out. */
export async function need(wanted: Iterable<string>): Promise<void> {
  await summaries();
  let missing = [...new Set([...FIX_PARTS, ...wanted])].filter((id) => !store.has(id) && !absent.has(id));
  while (missing.length) {
    const now = missing.slice(0, MOST_AT_ONCE);
    const got = await source.details({ ids: now });
    for (const p of got) store.set(p.id, p);
    for (const id of now) if (!store.has(id)) absent.add(id);
    const around = got.flatMap((p) => p.companions.map((c) => c.part));
    missing = [...new Set([...missing.slice(MOST_AT_ONCE), ...around])].filter(
      (id) => !store.has(id) && !absent.has(id),
    );
  }
}

/** Every board and bare chip, for trying them all. */
export async function needBoards(): Promise<void> {
  if (allBoards) return;
  for (const p of await source.details({ boards: true })) store.set(p.id, p);
  allBoards = true;
}

const idsOfEdit = (e: Edit): string[] => {
  if (e.type === "batch") return e.edits.flatMap(idsOfEdit);
  if (e.type === "addPart" || e.type === "changePart") return [e.part];
  if (e.type === "setCompanion" && typeof e.value === "object" && e.value?.part) return [e.value.part];
  if (e.type === "setOwnPart") return [e.part.id];
  if (e.type === "setPlan") return e.parts.map((p) => p.part);
  return [];
};

/** Everything that a project, and an edit of it, names. */
export const needFor = (project: Project, edit?: Edit) =>
  need([
    ...project.parts.flatMap((p) => [
      p.part,
      ...Object.values(p.companions ?? {}).flatMap((v) => (v && v !== "internal" && v.part ? [v.part] : [])),
    ]),
    ...project.customParts.flatMap((p) => [...p.companions, ...(p.contains ?? [])].map((c) => c.part)),
    ...(edit ? idsOfEdit(edit) : []),
  ]);

let index: { key: string; search: PartSearch; match: ListMatcher; byId: Map<string, PartSummary> } | undefined;

/** The search over the shipped parts and the person's own, made anew when the own ones change. */
export async function partIndex(own: readonly Part[]) {
  const shipped = await summaries();
  const key = own.map((p) => `${p.id} ${p.name}`).join("|");
  if (index?.key === key) return index;
  const mine = own.map(summarise);
  const hidden = new Set(mine.map((s) => s.id));
  const all = [...mine, ...shipped.filter((s) => !hidden.has(s.id))];
  const search = makeSearch(all);
  index = { key, search, match: makeMatcher(all, search), byId: new Map(all.map((s) => [s.id, s])) };
  return index;
}
