/** Two changes of one project, made apart, put together. */
import { partKind, type PartKind } from "../../parts/catalogue";
import { splitEnd } from "../endpoint";
import { nextRef } from "../refs";
import { refsOf, type Rule } from "../rules";
import type { BenchEntry, Link, Project, ProjectPart } from "../schema";
import { renamed } from "./renamed";
import { canon, Merging, same, said, type Clash, type Picks, type Three } from "./three-way";

export type { Clash, Picks, Side } from "./three-way";

export interface Merged {
  project: Project;
  /** What has to be chosen; until it is, theirs stands. Chosen ones are among them. */
  clashes: Clash[];
  /** What was done to make them fit: parts that got another reference, wires that lost their part. */
  notes: string[];
}

/** Parts of the same reference that were put in on both sides, and are others: mine get the next free ones. */
function newNames(base: Project, mine: Project, theirs: Project): Map<string, string> {
  const [was, there] = [base, theirs].map((p) => new Map(p.parts.map((x) => [x.ref, x]))) as [
    Map<string, ProjectPart>,
    Map<string, ProjectPart>,
  ];
  const names = new Map<string, string>();
  // Neither side's references are free.
  let all: Project = { ...theirs, parts: [...theirs.parts, ...mine.parts.filter((p) => !there.has(p.ref))] };
  for (const p of mine.parts) {
    const other = there.get(p.ref);
    if (was.has(p.ref) || !other || same(p, other)) continue;
    const ref = nextRef(all, p.part);
    names.set(p.ref, ref);
    all = { ...all, parts: [...all.parts, { ...p, ref }] };
  }
  return names;
}

/** Of a wire's two ends the one that says whose it is: a part's before a supply's, a supply's before a board's. */
const RANK: Partial<Record<PartKind, number>> = { supply: 1, board: 2, chip: 2 };
const turnedRound = (l: Link): Link => ({ ...l, from: l.to, to: l.from });
/** Wires by that end, whichever way they are written: what leads from a part's pin belongs together. */
function byPin(p: Project, backwards: (l: Link) => boolean): Record<string, Link[]> {
  const out = new Map<string, Link[]>();
  for (const l of p.links) {
    const link = backwards(l) ? turnedRound(l) : l;
    out.set(link.from, [...(out.get(link.from) ?? []), link]);
  }
  return Object.fromEntries(out);
}
/** As it was written where it was written the other way round, there first. */
function asWritten(links: readonly Link[], ...sides: readonly Project[]): Link[] {
  const known = new Set(sides.flatMap((p) => p.links.map((l) => `${l.from} ${l.to}`)));
  return links.map((l) => (known.has(`${l.from} ${l.to}`) || !known.has(`${l.to} ${l.from}`) ? l : turnedRound(l)));
}
const leads = (links: readonly Link[] | undefined) =>
  links?.length ? links.map((l) => `to ${l.to}`).join(", ") : "no wire";

const nameOf = (p: ProjectPart | undefined, ref: string) => (p?.label ? `${ref} ${p.label}` : ref);
const partSaid = (p: ProjectPart | undefined) => (p ? said({ ...p, ref: undefined, label: undefined }) : "taken out");

function part(m: Merging, ref: string, three: Three<ProjectPart | undefined>): ProjectPart | undefined {
  const [b, mine, theirs] = three;
  const name = nameOf(b ?? theirs, ref);
  // Taken out on one side and changed on the other, or another part in its place: as a whole.
  if (!b || !mine || !theirs || mine.part !== theirs.part) return m.leaf(`part ${ref}`, name, three, partSaid);
  const r = [b, mine, theirs] as unknown as Three<Record<string, unknown>>;
  return m.record(r, (key, values) =>
    key === "options" || key === "companions"
      ? m.record(values as Three<Record<string, unknown> | undefined>, (k, v) =>
          m.leaf(`part ${ref} ${key} ${k}`, `${name}: ${k}`, v),
        )
      : m.leaf(`part ${ref} ${key}`, `${name}: ${key === "label" ? "its name" : key}`, values),
  ) as ProjectPart;
}

/** A rule that both changed has no name by which the two could be told to be the same: all of them then, as a whole. */
function rules(m: Merging, [b, mine, theirs]: Three<Rule[] | undefined>): Rule[] | undefined {
  const out = (list: Rule[] | undefined) => (b ?? []).filter((r) => !(list ?? []).some((x) => same(x, r))).map(canon);
  const touched = out(mine).some((r) => out(theirs).includes(r));
  if (!b || !mine || !theirs || touched)
    return m.leaf("rules", "what the programs do", [b, mine, theirs], (v) =>
      v ? `${v.length} sentences` : "as suggested",
    );
  return m.bag([b, mine, theirs]);
}

const benchId = (e: BenchEntry) => canon(e.list === "log" ? [e.list, e.id, e.at] : [e.list, e.id]);

/** What hangs on parts that are not there any more goes with them. */
function without(p: Project, notes: string[]): Project {
  const refs = new Set(p.parts.map((x) => x.ref));
  const here = (end: string) => refs.has(splitEnd(end).ref);
  const loose = p.links.filter((l) => !here(l.from) || !here(l.to));
  const idle = (p.rules ?? []).filter((r) => refsOf(r).some((x) => !refs.has(x)));
  if (loose.length)
    notes.push(`${loose.map((l) => `${l.from} to ${l.to}`).join(", ")}: left out, a part of it was taken out.`);
  if (idle.length) notes.push(`${idle.length} of the sentences left out: a part of them was taken out.`);
  return {
    ...p,
    parts: p.parts.map((x) => {
      const { host, ...rest } = x;
      return host !== undefined && !refs.has(host) ? rest : x;
    }),
    links: p.links.filter((l) => !loose.includes(l)),
    isolated: p.isolated.map((l) => l.filter((e) => refs.has(e.split(".")[0]!))).filter((l) => l.length),
    buses: p.buses.filter((b) => refs.has(b.host)),
    ...(p.rules && { rules: p.rules.filter((r) => !idle.includes(r)) }),
  };
}

/**
 * Puts two versions of a project together that were made apart from the same one. What only one side changed is as that side
 * has it; what both changed is asked for, pin by pin and value by value: see `clashes`, and give the choices in `picks`. Nothing of
 * the arguments is changed.
 */
export function mergeProjects(base: Project, mine: Project, theirs: Project, picks: Picks = {}): Merged {
  const names = newNames(base, mine, theirs);
  const ours = renamed(mine, names);
  const m = new Merging(picks);
  const notes = [...names].map(([was, is]) => `${was} was put in on both sides: the one from here is ${is} now.`);
  const three = <K extends keyof Project>(k: K) => [base[k], ours[k], theirs[k]] as Three<Project[K]>;
  type Values = Record<string, unknown>;
  const values = (key: string, what: string, v: Three<Values | undefined>): Values =>
    m.record(v, (k, x) => m.leaf(`${key} ${k}`, `${what}: ${k}`, x));
  const optional = <K extends keyof Project>(k: K, made: () => Project[K]) => {
    const [b, mineHas, theirsHas] = three(k);
    if (mineHas === undefined || theirsHas === undefined)
      return { [k]: m.leaf(k, WHOLE[k] ?? k, [b, mineHas, theirsHas]) } as Partial<Project>;
    return { [k]: made() } as Partial<Project>;
  };
  const nested = <K extends "kit" | "box" | "drawing">(k: K) =>
    optional(
      k,
      () =>
        m.record(three(k) as unknown as Three<Values>, (key, v) =>
          v.every((x) => x === undefined || (typeof x === "object" && x !== null && !Array.isArray(x)))
            ? values(`${k} ${key}`, WHOLE[k]!, v as Three<Values | undefined>)
            : m.leaf(`${k} ${key}`, `${WHOLE[k]}: ${key}`, v),
        ) as unknown as Project[K],
    );
  const kinds = new Map([base, theirs, ours].flatMap((p) => p.parts.map((x) => [x.ref, partKind(x.part)] as const)));
  const rank = (end: string) => RANK[kinds.get(splitEnd(end).ref) ?? "module"] ?? 0;
  const backwards = (l: Link) => rank(l.to) < rank(l.from);
  const drawer = three("drawer");
  const [b, o, t] = [base, ours, theirs];
  const put: Project = {
    ...theirs,
    title: m.leaf("title", "the title", three("title")),
    brief: values("brief", "the brief", three("brief") as unknown as Three<Values>) as Project["brief"],
    houseRules: values("houseRules", "house rule", three("houseRules") as Three<Values>) as Project["houseRules"],
    parts: m.keyed(
      three("parts"),
      (p) => p.ref,
      (ref, v) => part(m, ref, v),
    ),
    links: asWritten(
      Object.values(
        m.record([b, o, t].map((p) => byPin(p, backwards)) as unknown as Three<Record<string, Link[]>>, (from, v) =>
          m.leaf(`wires ${from}`, `the wires of ${from}`, v, leads),
        ),
      ).flat(),
      t,
      o,
    ),
    isolated: m.bag(three("isolated")),
    buses: m.keyed(
      three("buses"),
      (x) => `${x.host} ${x.bus}`,
      (id, v) => m.leaf(`bus ${id}`, `the clock of ${id}`, v, (x) => (x ? `${x.clock_Hz} Hz` : "as usual")),
    ),
    customParts: m.keyed(
      three("customParts"),
      (p) => p.id,
      (id, v) => m.leaf(`own part ${id}`, `the own part ${id}`, v, (p) => p?.name ?? "taken out"),
    ),
    drawer: {
      parts: m.record(drawer.map((d) => d.parts) as unknown as Three<Record<string, number>>, (k, v) =>
        m.leaf(`drawer ${k}`, `the drawer: ${k}`, v),
      ),
      resistors_ohm: m.bag(drawer.map((d) => d.resistors_ohm) as unknown as Three<number[]>),
      capacitors_F: m.bag(drawer.map((d) => d.capacitors_F) as unknown as Three<number[]>),
    },
    code: m.record(three("code"), (target, v) =>
      m.record(v, (k, text) => m.leaf(`code ${target} ${k}`, `own code at ${k} (${target})`, text)),
    ),
    bench: m.keyed(three("bench"), benchId, (id, v) => {
      const [, e] = v;
      return m.leaf(`bench ${id}`, `${(v[2] ?? e)?.id}`, v, (x) =>
        x ? (x.reading ?? (x.done ? "done" : "open")) : "open",
      );
    }),
    ...optional("remarks", () =>
      m.keyed(
        three("remarks").map((x) => x ?? []) as unknown as Three<NonNullable<Project["remarks"]>>,
        (r) => r.id,
        (id, v) =>
          m.leaf(`remark ${id}`, `a remark by ${(v[1] ?? v[2])?.by || "somebody"}`, v, (r) =>
            r ? (r.done ? "done" : "open") : "taken out",
          ),
      ),
    ),
    acknowledged: m.keyed(
      three("acknowledged"),
      (a) => canon([a.rule, a.at]),
      (id, v) =>
        m.leaf(`accepted ${id}`, `the accepted risk ${(v[1] ?? v[2])?.rule}`, v, (a) => a?.reason ?? "not accepted"),
    ),
    ...optional("rules", () => rules(m, three("rules"))),
    ...optional("savedPlan", () =>
      m.leaf("savedPlan", "the saved plan", three("savedPlan"), (s) => s?.name ?? s?.at ?? "none"),
    ),
    ...optional("pattern", () => m.leaf("pattern", "the pattern", three("pattern"), (x) => x ?? "none")),
    ...optional("fixedRules", () =>
      m.leaf("fixedRules", WHOLE.fixedRules!, three("fixedRules"), (x) =>
        x ? `${x.by}: ${x.keys.join(", ")}` : "none",
      ),
    ),
    ...optional("lesson", () =>
      m.leaf("lesson", WHOLE.lesson!, three("lesson"), (x) => (x ? `${x.level}, ${x.minutes} minutes` : "none")),
    ),
    ...nested("drawing"),
    ...nested("kit"),
    ...nested("box"),
    ...optional("breadboard", () => {
      const v = three("breadboard") as Three<NonNullable<Project["breadboard"]>>;
      // One that the planner keeps up is nobody's: what a person moved counts.
      if (v[1]!.by === "plan") return v[2];
      if (v[2]!.by === "plan") return v[1];
      return {
        ...v[2],
        boards: m.leaf("breadboard boards", "the breadboards", [v[0]?.boards ?? [], v[1].boards, v[2].boards]),
        at: m.record([v[0]?.at, v[1].at, v[2].at], (ref, x) =>
          m.leaf(`breadboard ${ref}`, `where ${ref} stands`, x, (s) => (s ? `row ${s.row}` : "nowhere")),
        ),
      };
    }),
  };
  for (const k of Object.keys(put) as (keyof Project)[]) if (put[k] === undefined) delete put[k];
  return { project: without(put, notes), clashes: m.clashes, notes };
}

const WHOLE: Partial<Record<keyof Project, string>> = {
  rules: "what the programs do",
  savedPlan: "the saved plan",
  drawing: "the drawing",
  kit: "the kits",
  pattern: "the pattern",
  remarks: "the remarks",
  fixedRules: "the settled rules",
  lesson: "the lesson",
  box: "the box",
  breadboard: "the breadboard",
};
