import { findings, verdict, type Finding } from "../checks";
import { circuitOf, type Circuit } from "../circuit";
import type { Net } from "../circuit/netlist";
import type { Catalogue } from "../parts/catalogue";
import { applyEdit, type BasicEdit, type Project } from "../project";

/** What an act would bring, told before it is done. */
export interface Consequences {
  /** Nets that become one, by their names. */
  joined: string[][];
  /** Nets that fall apart. */
  parted: string[];
  /** Needs that get a pin, and needs that lose theirs: `M1.SDA on B1.GP4`. */
  met: string[];
  lost: string[];
  comes: Pick<Finding, "rule" | "severity" | "message">[];
  goes: Pick<Finding, "rule" | "severity" | "message">[];
  before: string;
  after: string;
}

const endsOf = (n: Net) => n.ends.map((e) => `${e.ref}.${e.pin}`);

/** Nets of one circuit that lie in one net of another, by their names; a pin that was on none by its own. */
function together(a: ReturnType<typeof circuitOf>, b: ReturnType<typeof circuitOf>): string[][] {
  const home = new Map<string, Net>();
  for (const n of a.netlist.nets) for (const e of endsOf(n)) home.set(e, n);
  const known = new Set(a.project.parts.map((p) => p.ref));
  return b.netlist.nets.flatMap((n) => {
    const ends = endsOf(n).filter((e) => known.has(e.split(".")[0]!));
    // A pin that nothing was wired to is called as it is printed, not by the net of one that it will be.
    const names = new Set(ends.map((e) => ((home.get(e)?.ends.length ?? 0) > 1 ? home.get(e)!.name : e)));
    return names.size > 1 ? [[...names].sort()] : [];
  });
}

/** The same trouble of the same parts, on whichever pins it is. */
const key = (f: Finding) =>
  `${f.rule}|${[...new Set(f.at.map((x) => x.split(".")[0]))].sort().join("|")}|${f.severity}`;
const short = ({ rule, severity, message }: Finding) => ({ rule, severity, message });

const memo = new WeakMap<Circuit, Finding[]>();

/** The findings of the project as it stands: asked for with every key that is typed, worked out once. */
function standing(c: Circuit): Finding[] {
  const known = memo.get(c) ?? findings(c);
  memo.set(c, known);
  return known;
}

/** The difference between two states of a project, as far as wires go. */
export function between(before: Project, after: Project, catalogue: Catalogue): Consequences {
  const [a, b] = [circuitOf(before, catalogue), circuitOf(after, catalogue)];
  const [x, y] = [standing(a), findings(b)];
  const [had, has] = [new Set(x.map(key)), new Set(y.map(key))];
  const needs = (c: typeof a) =>
    new Map(c.netlist.bindings.map((n) => [`${n.ref}.${n.pin}`, `${n.host}.${n.hostPin}`]));
  const [old, now] = [needs(a), needs(b)];
  return {
    joined: together(a, b),
    parted: together(b, a).map((names) => names.join(" and ")),
    met: [...now].flatMap(([n, p]) => (old.get(n) === p ? [] : [`${n} on ${p}`])),
    lost: [...old].flatMap(([n, p]) => (now.has(n) ? [] : [`${n} from ${p}`])),
    comes: y.filter((f) => !had.has(key(f))).map(short),
    goes: x.filter((f) => !has.has(key(f))).map(short),
    before: verdict(a, x).words,
    after: verdict(b, y).words,
  };
}

/** What edits would bring; the project is untouched. */
export const consequences = (project: Project, edits: readonly BasicEdit[], catalogue: Catalogue): Consequences =>
  between(
    project,
    edits.reduce((p, e) => applyEdit(p, e, catalogue), project),
    catalogue,
  );

/** The consequences as lines for people, the gravest first. */
export function consequenceLines(k: Consequences): string[] {
  const order = ["stop", "fault", "risk", "note"];
  const bySeverity = (l: Consequences["comes"]) =>
    [...l].sort((a, b) => order.indexOf(a.severity) - order.indexOf(b.severity));
  return [
    ...k.joined.map((n) => `becomes one: ${n.join(" and ")}`),
    ...k.parted.map((n) => `falls apart: ${n}`),
    ...(k.met.length ? [`now served: ${k.met.join(", ")}`] : []),
    ...(k.lost.length ? [`no longer served: ${k.lost.join(", ")}`] : []),
    ...bySeverity(k.comes).map((f) => `comes: ${f.severity} ${f.rule}: ${f.message}`),
    ...bySeverity(k.goes).map((f) => `goes: ${f.severity} ${f.rule}`),
    `then: ${k.after}`,
  ];
}
