import { planAll } from "../../core/plan/advice";
import { circuitOf } from "../../core/circuit";
import { chainAfter, isPlanned, openPins, recommendedCompanions } from "../../core/plan/assign";
import {
  ChosenPrintSchema,
  compareParts,
  describePart,
  printedPins,
  printProblems,
  printRows,
  unknownLabels,
  usualEdge,
  readingOf,
  readingRows,
  type ChosenPrint,
  type HeaderRow,
  type PrintRow,
  type CompareRow,
  type Part,
  type PartDescription,
  type PartSummary,
} from "../../core/parts/catalogue";
import type { Facets, SearchResult } from "../../core/parts/catalogue/search";
import { readList, type MatchedLine } from "../../core/parts/lists";
import { applyEdit, defaultHost, nextRef, partLookup, type Project } from "../../core/project";
import { catalogue, need, needFor, partIndex } from "../loading";
import { step, type Step } from "../step";

/** What the list of found parts shows: summaries in order of fit, and how many each narrowing would leave. */
export interface Found extends Omit<SearchResult, "scores"> {
  parts: (PartSummary & { own: boolean })[];
}

/** A line of an imported list as the person decided it. */
export interface ListChoice {
  to: "project" | "drawer";
  id: string;
  quantity: number;
  options: Record<string, string | number>;
  label?: string;
}

/** A part's entry with the loose parts that it wants around it. */
function withCompanions(project: Project, ref: string): Project {
  const host = defaultHost(project, partLookup(project, catalogue));
  const entry = project.parts.find((p) => p.ref === ref)!;
  const companions = host && host !== ref ? recommendedCompanions(project, entry, catalogue, host) : {};
  return Object.keys(companions).length
    ? { ...project, parts: project.parts.map((p) => (p.ref === ref ? { ...p, companions } : p)) }
    : project;
}

/** The drawer with the lines put in: values into their lists, parts counted. */
function intoDrawer(project: Project, lines: ListChoice[]) {
  const { drawer } = project;
  const parts: Record<string, number> = {};
  const ohms = new Set(drawer.resistors_ohm);
  const farads = new Set(drawer.capacitors_F);
  for (const l of lines) {
    const { resistance_ohm, capacitance_uF } = l.options;
    if (l.id === "discrete/resistor" && typeof resistance_ohm === "number") ohms.add(resistance_ohm);
    else if (typeof capacitance_uF === "number") farads.add(Number((capacitance_uF * 1e-6).toPrecision(6)));
    else parts[l.id] = (parts[l.id] ?? drawer.parts[l.id] ?? 0) + l.quantity;
  }
  const sorted = (set: Set<number>) => [...set].sort((a, b) => a - b);
  return { parts, resistors_ohm: sorted(ohms), capacitors_F: sorted(farads) };
}

/** Whole definitions, the person's own first; ids that nobody has are left out. */
export async function definitions(wanted: string[], own: readonly Part[]): Promise<Part[]> {
  await need(wanted);
  return wanted.flatMap((id) => own.find((p) => p.id === id) ?? catalogue.get(id) ?? []);
}

/** Finding, comparing and adding parts, and lists taken over. */
export const partsApi = {
  /** Adds parts of one kind with the companions they want, and plans their pins when they fit. */
  async add(
    project: Project,
    id: string,
    label: string,
    more: { quantity?: number; options?: Record<string, unknown>; own?: Part } = {},
  ): Promise<Step & { ref: string; refs: string[]; clash: string | null; leftOpen: string | null }> {
    await needFor(project, { type: "addPart", part: id });
    const count = Math.max(1, Math.min(more.quantity ?? 1, 50));
    // A part from the person's own collection travels with every project that uses it.
    let now =
      more.own && !project.customParts.some((p) => p.id === id)
        ? applyEdit(project, { type: "setOwnPart", part: more.own }, catalogue)
        : project;
    const refs: string[] = [];
    for (let n = 1; n <= count; n++) {
      const ref = nextRef(now, id);
      const name = label && count > 1 ? `${label} ${n}` : label;
      refs.push(ref);
      now = withCompanions(
        applyEdit(
          now,
          {
            type: "addPart",
            part: id,
            ref,
            ...(name && { label: name }),
            ...(more.options && { options: more.options }),
          },
          catalogue,
        ),
        ref,
      );
    }
    const host = defaultHost(now, partLookup(now, catalogue));
    const a = host ? planAll(now, catalogue) : null;
    const done = a && isPlanned(a) ? a.project : now;
    const says = `add ${label || refs[0]}${count > 1 ? ` and ${count - 1} more` : ""}`;
    return { ...step(done, says), ref: refs[0]!, refs, clash: a?.clash ?? null, leftOpen: a?.leftOpen ?? null };
  },

  /** Finds parts by words, narrowed by facets, among the shipped ones and the person's own. */
  async search(query: string, facets: Facets, own: readonly Part[]): Promise<Found> {
    const { search, byId } = await partIndex(own);
    const { ids, counts, partial } = search(query, facets);
    const mine = new Set(own.map((p) => p.id));
    return { ids, counts, partial, parts: ids.map((id) => ({ ...byId.get(id)!, own: mine.has(id) })) };
  },

  parts: definitions,

  async compare(wanted: string[], own: readonly Part[]): Promise<{ names: string[]; rows: CompareRow[] }> {
    const list = await definitions(wanted, own);
    return { names: list.map((p) => p.name), rows: compareParts(list) };
  },

  async describe(id: string, own: readonly Part[]): Promise<{ part: Part; description: PartDescription } | null> {
    const [part] = await definitions([id], own);
    return part ? { part, description: describePart(part) } : null;
  },

  /** The known prints of a part, and the labels that its pins have. */
  async prints(
    id: string,
    own: readonly Part[],
  ): Promise<{
    name: string;
    prints: PrintRow[];
    edge: "bottom" | "top";
    pins: { label: string; says: string }[];
  } | null> {
    const [part] = await definitions([id], own);
    if (!part) return null;
    const known = printedPins(part);
    const pins = part.pins.filter((p) => known.has(p.label));
    return {
      name: part.name,
      prints: printRows(part),
      edge: usualEdge(part),
      pins: pins.map((p) => ({ label: p.label, says: [p.label, ...(p.aliases ?? [])].join(", ") })),
    };
  },

  /** A header that was looked at: for the part, for the next of its kind, and its pins that nothing is planned at yet. */
  async confirmPrint(project: Project, ref: string, id: string, print: ChosenPrint): Promise<Step> {
    await needFor(project);
    const edits = [
      { type: "setPrint" as const, ref, print },
      { type: "setDrawer" as const, drawer: { prints: { [id]: print } } },
    ];
    const next = applyEdit(project, { type: "batch", edits }, catalogue);
    const { netlist } = circuitOf(next, catalogue);
    const inst = netlist.instance(ref);
    const waits = inst?.host !== undefined && openPins(next, netlist, inst).length > 0;
    const a = waits ? planAll(next, catalogue) : null;
    return step(a && isPlanned(a) ? a.project : next, `${ref}: header confirmed`);
  },

  /** A header as somebody typed it: what is wrong with it, and which labels nobody knows yet. */
  async printRead(
    id: string,
    own: readonly Part[],
    print: ChosenPrint,
  ): Promise<{ problems: string[]; unknown: string[]; headers: HeaderRow[] }> {
    const [part] = await definitions([id], own);
    const parsed = ChosenPrintSchema.safeParse(print);
    if (!part || !parsed.success || "id" in parsed.data)
      return { problems: parsed.error?.issues.slice(0, 3).map((i) => i.message) ?? [], unknown: [], headers: [] };
    const reading = readingOf(part, parsed.data);
    return {
      problems: printProblems(part, parsed.data),
      unknown: unknownLabels(part, parsed.data),
      headers: readingRows(part, reading),
    };
  },

  /** Reads a pasted or imported parts list and matches it; nothing is changed yet. */
  async list(
    text: string,
    own: readonly Part[],
  ): Promise<{ ok: true; lines: MatchedLine[] } | { ok: false; message: string }> {
    const read = readList(text);
    if (!read.ok) return read;
    const { match } = await partIndex(own);
    return { ok: true, lines: match(read.lines) };
  },

  /** Takes the decided lines over: parts into the project, planned in one go, the rest into the drawer. */
  async takeList(
    project: Project,
    choices: ListChoice[],
    own: readonly Part[],
  ): Promise<Step & { clash: string | null; leftOpen: string | null; added: number }> {
    await needFor(project);
    await need(choices.map((c) => c.id));
    let now = project;
    let added = 0;
    for (const c of choices.filter((x) => x.to === "project")) {
      const mine = own.find((p) => p.id === c.id);
      if (mine && !now.customParts.some((p) => p.id === c.id))
        now = applyEdit(now, { type: "setOwnPart", part: mine }, catalogue);
      for (let n = 0; n < Math.min(c.quantity, 50); n++) {
        const ref = nextRef(now, c.id);
        const options = Object.keys(c.options).length ? { options: c.options } : {};
        now = withCompanions(applyEdit(now, { type: "addPart", part: c.id, ref, ...options }, catalogue), ref);
        added++;
      }
    }
    const loose = choices.filter((x) => x.to === "drawer");
    if (loose.length) now = applyEdit(now, { type: "setDrawer", drawer: intoDrawer(now, loose) }, catalogue);
    const host = defaultHost(now, partLookup(now, catalogue));
    const a = host && added ? planAll(now, catalogue) : null;
    const done = a && isPlanned(a) ? a.project : now;
    return {
      ...step(done, `take over a list of ${choices.length}`),
      clash: a?.clash ?? null,
      leftOpen: a?.leftOpen ?? null,
      added,
    };
  },

  /** Puts a piece of a chain behind another: its data comes from that one's data-out. */
  async chain(project: Project, ref: string, after: string | null): Promise<Step> {
    await needFor(project);
    const next = chainAfter(project, catalogue, ref, after);
    const a = planAll(next, catalogue);
    return step(isPlanned(a) ? a.project : next, after ? `${ref} after ${after}` : `${ref} on its own pin`);
  },
};
