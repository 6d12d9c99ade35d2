import { findings, verdict } from "../checks";
import { circuitOf } from "../circuit";
import { mended } from "../idea/mended";
import { planAll } from "../plan/advice";
import { printsOf, printText, type Catalogue, type ChosenPrint } from "../parts/catalogue";
import { applyEdit, emptyProject, refsOf, type Edit, type Project, type Rule } from "../project";
import type { Onward, Pattern, PatternPart } from "./types";

/** A part of a pattern whose header is sold in several orders, or is only known from few of them. */
export interface ToLookAt {
  ref: string;
  label: string;
  part: string;
  prints: { id: string; reads: string }[];
}

export interface Begun {
  project: Project;
  did: string[];
  clash: string | null;
  verdict: string;
}

function partEdits(p: PatternPart): Edit[] {
  return [
    {
      type: "addPart",
      part: p.part,
      ref: p.ref,
      label: p.label,
      ...(p.options && { options: { ...p.options } }),
      ...(p.companions && { companions: p.companions }),
    },
    ...(p.host ? [{ type: "setHost" as const, ref: p.ref, host: p.host }] : []),
    ...(p.wire_cm ? [{ type: "setWire" as const, ref: p.ref, wire_cm: p.wire_cm }] : []),
    ...(p.wanted ?? []).map((pin) => ({ type: "setWanted" as const, ref: p.ref, pin, wanted: true })),
  ];
}
const linkEdits = (links: Pattern["links"]): Edit[] =>
  (links ?? []).map(([from, to]) => ({ type: "addLink", link: { from, to, locked: true } }));

/** How the header of a part of a pattern reads: its commonest print, unless the one in hand reads otherwise; null: not looked at. */
export type Looked = Readonly<Record<string, string | null>>;

function headerEdits(p: Project, catalogue: Catalogue, refs: readonly string[], looked: Looked): Edit[] {
  return refs.flatMap((ref): Edit[] => {
    const entry = p.parts.find((x) => x.ref === ref)!;
    const part = catalogue.get(entry.part);
    const first = part?.body.prints?.[0]?.id;
    const id = ref in looked ? looked[ref] : first;
    if (!part || entry.print || !first || id === null || !printsOf(part).some((x) => x.id === id)) return [];
    return [{ type: "setPrint", ref, print: { id: id! } satisfies ChosenPrint }];
  });
}

const run = (p: Project, edits: readonly Edit[], catalogue: Catalogue) =>
  edits.reduce((q, e) => applyEdit(q, e, catalogue), p);

function finished(before: Project, joined: Project, catalogue: Catalogue): Begun {
  const a = planAll(joined, catalogue);
  const done = a.clash ? { project: a.project, did: [] } : mended(before, a.project, catalogue);
  const c = circuitOf(done.project, catalogue);
  return { ...done, clash: a.clash, verdict: verdict(c, findings(c)).words };
}

/**
 * The project of a pattern on a board: planned, mended by the checks' own fixes, with what it does and where it came from. The
 * headers of its parts are taken as the pattern takes them, which `looked` may change; null leaves one to be looked at.
 */
export function beginPattern(
  pattern: Pattern,
  catalogue: Catalogue,
  o: { board?: string; looked?: Looked; drawer?: Project["drawer"]; houseRules?: Project["houseRules"] } = {},
): Begun {
  const empty: Project = {
    ...emptyProject(pattern.title),
    pattern: pattern.id,
    houseRules: { ...o.houseRules, ...pattern.houseRules },
    isolated: pattern.isolated ?? [],
    ...(o.drawer && { drawer: o.drawer }),
  };
  const board = o.board ?? pattern.boards[0]!;
  const def = catalogue.get(board);
  // A radio that nobody wants stays off: it would draw the most of all.
  const quiet = def?.options?.some((x) => x.key === "radio") ? { radio: "false" } : {};
  const joined = run(
    empty,
    [
      { type: "setBrief", brief: { goal: pattern.goal, ...(pattern.place && { place: pattern.place }) } },
      { type: "addPart", part: board, ref: "B1", label: "Controller", options: { ...quiet, ...pattern.board } },
      ...(pattern.sleep ? [{ type: "setSleep" as const, ref: "B1", sleep: pattern.sleep }] : []),
      ...pattern.parts.flatMap(partEdits),
      ...linkEdits(pattern.links),
      { type: "setRules", rules: [...pattern.rules] },
    ],
    catalogue,
  );
  const refs = joined.parts.map((p) => p.ref);
  const looked = run(joined, headerEdits(joined, catalogue, refs, o.looked ?? {}), catalogue);
  const done = finished(empty, looked, catalogue);
  const coded = Object.entries(pattern.code ?? {}).reduce(
    (p, [target, regions]) =>
      Object.entries(regions).reduce(
        (q, [region, text]) => applyEdit(q, { type: "setCode", target, region, text }, catalogue),
        p,
      ),
    done.project,
  );
  return { ...done, project: coded };
}

/** References of what joins, where others have taken theirs since: old to new. */
function freeRefs(project: Project, parts: readonly PatternPart[]): Map<string, string> {
  const taken = new Set(project.parts.map((p) => p.ref));
  const free = (ref: string) => {
    const [letters, number] = [ref.replace(/\d+$/, ""), Number(/\d+$/.exec(ref)![0])];
    let n = number;
    while (taken.has(`${letters}${n}`)) n++;
    taken.add(`${letters}${n}`);
    return `${letters}${n}`;
  };
  return new Map(parts.map((p) => [p.ref, free(p.ref)]));
}

/** An onward with its references renamed. */
function renamed(onward: Onward, to: ReadonlyMap<string, string>): Onward {
  const ref = (r: string) => to.get(r) ?? r;
  const end = (e: string) => `${ref(e.split(".")[0]!)}.${e.split(".").slice(1).join(".")}`;
  const rule = (r: Rule): Rule =>
    ({
      when: "ref" in r.when ? { ...r.when, ref: ref(r.when.ref) } : r.when,
      do: { ...r.do, ref: ref(r.do.ref), ...("among" in r.do && { among: r.do.among.map(ref) }) },
    }) as Rule;
  return {
    ...onward,
    parts: onward.parts.map((p) => ({ ...p, ref: ref(p.ref) })),
    ...(onward.rules && { rules: onward.rules.map(rule) }),
    ...(onward.links && { links: onward.links.map(([a, b]) => [end(a), end(b)] as const) }),
  };
}

/**
 * A project of a pattern with one of the pattern's ways to go on joined: what is planned stays where it is, as far as it can.
 * `clash` says why where it does not fit, and where a part that it speaks of is no longer there.
 */
export function goOn(project: Project, onward: Onward, catalogue: Catalogue, looked: Looked = {}): Begun {
  const refs = freeRefs(project, onward.parts);
  const now = renamed(onward, refs);
  const there = new Set([...project.parts.map((p) => p.ref), ...refs.values()]);
  const gone = [
    ...(now.rules ?? []).flatMap(refsOf),
    ...(now.links ?? []).flat().map((e) => e.split(".")[0]!),
    ...now.parts.flatMap((p) => p.host ?? []),
  ].find((r) => !there.has(r));
  if (gone !== undefined) {
    const c = circuitOf(project, catalogue);
    return {
      project,
      did: [],
      clash: `this speaks of ${gone} of the pattern, which is no longer in the project`,
      verdict: verdict(c, findings(c)).words,
    };
  }
  const joined = run(
    project,
    [
      ...now.parts.flatMap(partEdits),
      ...linkEdits(now.links),
      // Rules that nobody wrote are suggested anew with every part; written ones are added to.
      ...(now.rules || project.rules
        ? [{ type: "setRules" as const, rules: [...(project.rules ?? []), ...(now.rules ?? [])] }]
        : []),
    ],
    catalogue,
  );
  const read = run(joined, headerEdits(joined, catalogue, [...refs.values()], looked), catalogue);
  return finished(project, read, catalogue);
}

/** Parts of a project whose header is sold in several orders, or is known from few: with the ways they read. */
export function toLookAt(project: Project, catalogue: Catalogue): ToLookAt[] {
  return project.parts.flatMap((p): ToLookAt[] => {
    const part = catalogue.get(p.part);
    const prints = part ? printsOf(part) : [];
    if (!part || !prints.length) return [];
    return [
      {
        ref: p.ref,
        label: p.label ?? p.ref,
        part: part.name,
        prints: prints.map((x) => ({ id: x.id, reads: printText(x) })),
      },
    ];
  });
}

/** Every part that a pattern and its ways to go on may bring in: to be loaded before. */
export const patternParts = (p: Pattern, board?: string): string[] => [
  ...(board ? [board] : p.boards),
  ...p.parts.map((x) => x.part),
  ...p.onward.flatMap((o) => o.parts.map((x) => x.part)),
];

export const patternById = (id: string, list: readonly Pattern[]): Pattern | undefined => list.find((p) => p.id === id);
