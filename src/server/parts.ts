import {
  describePart,
  isShipped,
  MAX_PART_BYTES,
  shippedId,
  summarise,
  validateOwnPart,
  validatePart,
  type Part,
  type PartSummary,
} from "../core/parts/catalogue";
import { shippedCatalogue } from "../core/parts/catalogue/shipped";
import { nearest } from "../core/parts/own/nearest";
import * as rows from "../db/own-parts";
import type { Outcome } from "./outcome";
import { database } from "./store";

let all: PartSummary[] | undefined;

/** The whole shipped catalogue as summaries: what lists and search need. Made once. */
export const summaries = (): PartSummary[] => (all ??= shippedCatalogue().parts.map(summarise));

const MOST_IDS = 100;

/** Whole definitions by id, or every board and bare chip. Unknown ids are left out. */
export function details(ask: { ids: string | null; boards: boolean }): Part[] {
  const catalogue = shippedCatalogue();
  if (ask.boards) return catalogue.parts.filter((p) => p.board);
  return [...new Set((ask.ids ?? "").split(","))].slice(0, MOST_IDS).flatMap((id) => catalogue.get(id) ?? []);
}

const parsed = (document: string): Part[] => {
  let data: unknown;
  try {
    data = JSON.parse(document);
  } catch {
    return [];
  }
  const result = validatePart(data);
  return result.ok && !isShipped(shippedCatalogue(), result.part.id) ? [result.part] : [];
};

/** The person's own parts, newest first. One that this version can't read, or that would hide a shipped one, is left out, not lost. */
export const ownParts = (): Part[] => rows.listOwnParts(database()).flatMap((r) => parsed(r.document));

export function saveOwnPart(input: unknown): Outcome<{ id: string }> {
  const result = validateOwnPart(input);
  if (!result.ok)
    return { status: 400, body: { message: "This part can't be used.", problems: result.problems.slice(0, 30) } };
  if (isShipped(shippedCatalogue(), result.part.id))
    return {
      status: 400,
      body: { message: "This part can't be used.", problems: [{ path: "id", message: shippedId(result.part.id) }] },
    };
  const text = JSON.stringify(result.part);
  if (text.length > MAX_PART_BYTES) return { status: 413, body: { message: "This part is too large to keep." } };
  rows.saveOwnPart(database(), result.part.id, text);
  return { status: 200, body: { id: result.part.id } };
}

export function removeOwnPart(id: string): Outcome<{ deleted: true }> {
  return rows.deleteOwnPart(database(), id)
    ? { status: 200, body: { deleted: true } }
    : { status: 404, body: { message: "There is no such part among your own." } };
}

/** Everything that a part's page shows; null when nobody has such a part. */
export function partPage(id: string) {
  const carried = () => {
    const text = rows.carriedPart(database(), id);
    return text ? parsed(text)[0] : undefined;
  };
  const own = ownParts().find((p) => p.id === id) ?? carried();
  const part = own ?? shippedCatalogue().get(id);
  if (!part) return null;
  return {
    part,
    own: own !== undefined,
    beside: own ? nearest(own, shippedCatalogue().parts) : null,
    summary: summarise(part),
    description: describePart(part),
    usedIn: rows.projectsUsing(database(), id),
  };
}
