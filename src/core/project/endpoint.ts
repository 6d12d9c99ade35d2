import { findPin, withOptions, withPrint, type Catalogue, type Part } from "../parts/catalogue";
import type { Link, Project, ProjectPart } from "./schema";

/** One end of a link: a part's reference and a pin's printed label. */
export interface End {
  ref: string;
  pin: string;
}

/** Splits `M1.GND.2` at its first dot. */
export function splitEnd(text: string): End {
  const dot = text.indexOf(".");
  return { ref: text.slice(0, dot), pin: text.slice(dot + 1) };
}
/** An endpoint as people name it: the label alone on the host that is meant, the whole endpoint elsewhere. */
export const endOn = (host: string | undefined, end: string) =>
  host !== undefined && end.startsWith(`${host}.`) ? end.slice(host.length + 1) : end;

const wired = new WeakMap<readonly Link[], { count: number; at: Map<string, Link[]> }>();
const NONE: readonly Link[] = [];

/** The links at an endpoint, as the project writes it; an index remembered by the list of links. */
export function linksAt(project: Pick<Project, "links">, end: string): readonly Link[] {
  const { links } = project;
  let known = wired.get(links);
  if (!known || known.count !== links.length) {
    known = { count: links.length, at: new Map() };
    for (const l of links)
      for (const e of l.from === l.to ? [l.from] : [l.from, l.to]) {
        const list = known.at.get(e);
        if (list) list.push(l);
        else known.at.set(e, [l]);
      }
    wired.set(links, known);
  }
  return known.at.get(end) ?? NONE;
}
/** The other end of a link at an endpoint. */
export const farOf = (l: Link, end: string): string => (l.from === end ? l.to : l.from);

export const joinEnd = (e: End) => `${e.ref}.${e.pin}`;

/** The endpoint with aliases replaced by the printed label; unknown endpoints come back as they are. */
export function canonicalEnd(text: string, partOf: (ref: string) => Part | undefined): string {
  const { ref, pin } = splitEnd(text);
  const part = partOf(ref);
  const found = part && findPin(part, pin);
  return found ? `${ref}.${found.label}` : text;
}

/** The definition of a part in the list with its options applied, whatever its header: what a print is held against. */
export function definitionOf(project: Project, catalogue: Catalogue, entry: ProjectPart): Part | undefined {
  const part = project.customParts.find((p) => p.id === entry.part) ?? catalogue.get(entry.part);
  return part && withOptions(part, entry.options ?? {});
}

/** A look-up from reference to definition with the entry's options applied, own parts of the project first. */
export function partLookup(project: Project, catalogue: Catalogue): (ref: string) => Part | undefined {
  const own = new Map(project.customParts.map((p) => [p.id, p]));
  const byRef = new Map(
    project.parts.map((p) => {
      const part = own.get(p.part) ?? catalogue.get(p.part);
      return [p.ref, part && withPrint(withOptions(part, p.options ?? {}), p.print, p.options)];
    }),
  );
  return (ref) => byRef.get(ref);
}

/** The part that hosts needs by default: the first board or bare chip in the list. */
export function defaultHost(project: Project, partOf: (ref: string) => Part | undefined): string | undefined {
  return project.parts.find((p) => partOf(p.ref)?.board !== undefined)?.ref;
}
