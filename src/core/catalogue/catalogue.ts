import MiniSearch from "minisearch";
import { partKind, type Part, type PartKind, type Pin } from "./schema";

/** A set of parts with look-up by id and search in words. Own parts of a project are laid over the shipped ones. */
export interface Catalogue {
  parts: readonly Part[];
  get(id: string): Part | undefined;
}

/** Builds a catalogue. A later part with the same id replaces an earlier one. */
export function makeCatalogue(parts: readonly Part[]): Catalogue {
  const byId = new Map(parts.map((p) => [p.id, p]));
  return { parts: [...byId.values()], get: (id) => byId.get(id) };
}

/** The pin with this printed label or alias. Boards that print bare numbers take `0` and `D0`. */
export function findPin(part: Part, label: string): Pin | undefined {
  return part.pins.find((p) => p.label === label) ?? part.pins.find((p) => p.aliases?.includes(label));
}

const searchText = (p: Part) => ({
  id: p.id,
  name: p.name,
  does: p.does,
  tags: [
    ...p.tags,
    ...p.groups.map((g) => g.kind),
    ...Object.values(p.supplies).map((s) => `${s.V.typ}V`),
    partKind(p.id),
  ].join(" "),
});

/** A search over id, name, purpose and tags. Returns ids, best first; an empty query lists all in catalogue order. */
export function makeSearch(catalogue: Catalogue): (query: string, kind?: PartKind) => string[] {
  const index = new MiniSearch({ fields: ["id", "name", "does", "tags"], storeFields: ["id"] });
  index.addAll(catalogue.parts.map(searchText));
  return (query, kind) => {
    const wanted = (id: string) => !kind || partKind(id) === kind;
    if (!query.trim()) return catalogue.parts.map((p) => p.id).filter(wanted);
    return index
      .search(query.slice(0, 100), { prefix: true, fuzzy: 0.15, combineWith: "AND", boost: { name: 3, does: 2 } })
      .map((r) => String(r.id))
      .filter(wanted);
  };
}
