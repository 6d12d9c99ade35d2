import { chainCandidates, latticeView, openNeeds, planDiff, type LatticeView, type Moved } from "../core/plan/assign";
import { checklist, type CheckItem } from "../core/bench";
import {
  asksPrint,
  ConnectorPinsSchema,
  partKind,
  printLine,
  type ConnectorPins,
  type Part,
  type PartKind,
  type PartOption,
} from "../core/parts/catalogue";
import { RULES, findingKey, findings, verdict, type Finding, type Verdict } from "../core/checks";
import { label } from "../core/checks/help";
import { circuitOf, type Circuit } from "../core/circuit";
import type { Catalogue } from "../core/parts/catalogue";
import { cautions } from "../core/formats";
import { boardsWithout, TARGETS, pinConstants, type PinConstant } from "../core/firmware";
import type { LevelVerdict } from "../core/circuit/solve";
import { fingerprint, type Project } from "../core/project";
import { formatOhm, formatSI } from "../core/quantity";
import {
  gridAddressTables,
  partsList,
  runSheet,
  toolsFor,
  wireTable,
  type BomRow,
  type GridAddresses,
  type RunRow,
  type Tool,
  type WireRow,
} from "../core/build";

/** A part of the project as the screens show it. */
export interface PartView {
  ref: string;
  label: string;
  part: string;
  kind: PartKind;
  name: string;
  does: string;
  certainty: string;
  notes: string[];
  cautions: string[];
  options: (Exclude<PartOption, { kind: "pins" }> & { value: string | number })[];
  /** Names and roles of a connector's pins, when it takes them. */
  pins: { key: string; labels: string[]; given: ConnectorPins } | null;
  /** Parts of this project that it could follow in a chain, and the one that it follows. */
  chain: { can: string[]; after: string | null } | null;
  own: boolean;
  /** Its header: how it reads, and whether a person has looked; null where there is nothing to look at. */
  print: { text: string; confirmed: boolean; doubtful: boolean } | null;
  companions: { key: string; says: string; because: string }[];
  isHost: boolean;
  /** The board that it hangs on. */
  host: string | null;
  /** Buses that the program may do itself on ordinary pins. */
  software: string[];
}
export interface LimitView {
  id: string;
  ref: string;
  label: string;
  says: string;
  /** The rail that it feeds, by its net's name. */
  rail: string;
  limit_mA: number;
  idle_mA: number;
  typ_mA: number;
  peak_mA: number;
  loads: { ref: string; label: string; peak_mA: number }[];
}
export interface LevelView {
  id: string;
  net: string;
  driver: string;
  receiver: string;
  how: "push-pull" | "pull-up" | "contact" | "diode";
  analog: boolean;
  high_V: number;
  VIH: number;
  marginHigh: number;
  low_V: number;
  VIL: number;
  marginLow: number;
  highest_V: number;
  ceiling: number;
}
/** A finding without its fixes: those are worked out for the one that somebody opens. */
export interface FindingView extends Omit<Finding, "fixes"> {
  /** What tells it from others, as `findingKey`. */
  key: string;
  /** The rule in plain words. */
  says: string;
}

/**
 * Everything that the screens show of a project, as plain data. Each of these is worked out in the worker when it is looked
 * at: the frame's at every edit, a station's while it is open.
 */
export interface View {
  verdict: Verdict;
  /** Eight letters that stand for this plan, as on every print and in the program. */
  fingerprint: string;
  findings: FindingView[];
  /** Boards and bare chips that run a program. */
  hosts: { ref: string; label: string; name: string }[];
  parts: PartView[];
  lattices: LatticeView[];
  limits: LimitView[];
  rails: { name: string; V: { min: number; typ: number; max: number } | null; typ_mA: number; peak_mA: number }[];
  levels: LevelView[];
  rows: RunRow[];
  /** Names of all nets that join something. */
  nets: string[];
  checks: CheckItem[];
  bom: BomRow[];
  wires: WireRow[];
  tools: Tool[];
  cautions: string[];
  open: number;
  /** Which pair of lines is which key or light. */
  addresses: GridAddresses[];
  /** How the pins differ from the saved plan; null when none was saved. */
  diff: Moved[] | null;
  constants: PinConstant[];
  targets: { id: string; name: string; says: string; unfit: string | null }[];
  /** Boards that get no program at all, by what they are called, with the reason. */
  withoutProgram: { ref: string; label: string; why: string }[];
}
export type Slice = keyof View;

/** What the frame shows around every station. */
export const FRAME: readonly Slice[] = ["verdict", "fingerprint", "findings", "hosts", "open", "targets"];

const rule = new Map(RULES.map((r) => [r.rule, r.says]));
const mA = (a: number) => a * 1000;

const levelView = (v: LevelVerdict): LevelView => ({
  id: `${v.driver.ref}.${v.driver.pin}>${v.receiver.ref}.${v.receiver.pin}`,
  net: v.net.name,
  driver: `${v.driver.ref}.${v.driver.pin}`,
  receiver: `${v.receiver.ref}.${v.receiver.pin}`,
  how: v.driver.how,
  high_V: v.high_V,
  VIH: v.VIH,
  marginHigh: v.marginHigh,
  low_V: v.low_V,
  VIL: v.VIL,
  marginLow: v.marginLow,
  highest_V: v.highest_V,
  ceiling: v.ceiling,
  analog: v.analog,
});

const VALUE = (v: Record<string, number>) =>
  v.resistance_ohm !== undefined
    ? `${formatOhm(v.resistance_ohm)} `
    : v.capacitance_uF !== undefined
      ? `${formatSI(v.capacitance_uF * 1e-6, "F")} `
      : "";

function pinsOption(part: Part, options: Record<string, unknown>): PartView["pins"] {
  const option = part.options.find((o) => o.kind === "pins");
  if (!option) return null;
  const given = ConnectorPinsSchema.safeParse(options[option.key] ?? {});
  return { key: option.key, labels: part.pins.map((x) => x.label), given: given.success ? given.data : {} };
}

function chainView(c: Circuit, ref: string): PartView["chain"] {
  const can = chainCandidates(c.netlist, ref);
  const after = c.netlist.bindings.find((b) => b.ref === ref && b.chainedAfter)?.chainedAfter ?? null;
  return can.length || after ? { can, after } : null;
}

function partViews(c: Circuit): PartView[] {
  const { project } = c;
  const all = [...c.netlist.expanded.instances.values()];
  return project.parts.flatMap((p): PartView[] => {
    const inst = c.netlist.instance(p.ref);
    if (!inst) return [];
    const internal = Object.entries(p.companions ?? {}).filter(([, v]) => v === "internal");
    return [
      {
        ref: p.ref,
        label: inst.label,
        part: p.part,
        kind: partKind(p.part),
        name: inst.part.name,
        does: inst.part.does,
        certainty: inst.part.certainty,
        notes: inst.part.notes,
        cautions: inst.part.cautions,
        options: inst.part.options.flatMap((o) =>
          o.kind === "pins" ? [] : [{ ...o, value: (p.options?.[o.key] as string | number) ?? o.default }],
        ),
        pins: pinsOption(inst.part, p.options ?? {}),
        chain: chainView(c, p.ref),
        own: project.customParts.some((x) => x.id === p.part),
        print:
          asksPrint(inst.part) || p.print
            ? {
                text: printLine(inst.reading),
                confirmed: inst.reading.confirmed,
                doubtful: inst.reading.doubtful,
              }
            : null,
        companions: [
          ...all
            .filter((i) => i.inserted?.by === p.ref)
            .map((i) => ({
              key: i.inserted!.key,
              says: `${VALUE(i.vars)}${i.part.name} (${i.ref})`,
              because: i.inserted!.because,
            })),
          ...internal.map(([key]) => ({ key, says: "the chip's own pull-up", because: "no extra part needed" })),
        ],
        isHost: inst.part.board !== undefined,
        host: inst.host ?? null,
        software: p.software ?? [],
      },
    ];
  });
}

function limitViews(c: Circuit): LimitView[] {
  const label = (ref: string) => c.netlist.instance(ref)?.label ?? ref;
  const netNames = new Map(c.netlist.nets.map((n) => [n.id, n.name]));
  return c.power.limits.map((l) => ({
    id: l.id,
    ref: l.ref,
    label: label(l.ref),
    says: l.says,
    rail: netNames.get(l.net) ?? "",
    limit_mA: mA(l.limit_A),
    idle_mA: mA(l.flow.idle),
    typ_mA: mA(l.flow.typ),
    peak_mA: mA(l.flow.peak),
    loads: l.loads.map((x) => ({ ref: x.ref, label: x.label, peak_mA: mA(x.flow.peak) })),
  }));
}

/** Sentences of a lattice by their text, only ever added to: so a row that did not change stays the same on its way. */
const sentences = new Map<string, number>();
const said: string[] = [];
/** Then it begins anew; a shorter list than before tells the rows that they read other sentences now. */
const MOST_SAID = 8000;

function steady(view: LatticeView): LatticeView {
  if (said.length > MOST_SAID) {
    sentences.clear();
    said.length = 0;
  }
  const at = view.says.map((text) => {
    const there = sentences.get(text);
    if (there !== undefined) return there;
    sentences.set(text, said.length);
    return said.push(text) - 1;
  });
  const rows = view.rows.map((r) => ({ ...r, why: r.why.map((i) => at[i]!) }));
  return { ...view, rows, says: said.slice() };
}

/** What each slice is made of. `v` gives the others. Adding one is a line here and its type above. */
const SLICES: { [K in Slice]: (c: Circuit, v: View & { list: Finding[] }) => View[K] } = {
  verdict: (c, v) => verdict(c, v.list),
  fingerprint: (c) => fingerprint(c.project),
  findings: (_, v) =>
    v.list.map((f) => ({
      key: findingKey(f),
      rule: f.rule,
      severity: f.severity,
      at: f.at,
      message: f.message,
      evidence: f.evidence,
      ...(f.acknowledged !== undefined && { acknowledged: f.acknowledged }),
      says: rule.get(f.rule) ?? "",
    })),
  hosts: (c) =>
    c.netlist.expanded.hosts.map((ref) => {
      const { label, part } = c.netlist.instance(ref)!;
      return { ref, label, name: part.name };
    }),
  parts: partViews,
  lattices: (c) => c.netlist.expanded.hosts.map((h) => steady(latticeView(c, h))),
  limits: limitViews,
  rails: (c) => c.power.rails.map((r) => ({ name: r.name, V: r.V, typ_mA: mA(r.flow.typ), peak_mA: mA(r.flow.peak) })),
  levels: (c) => c.levels.map(levelView),
  rows: runSheet,
  nets: (c) => c.netlist.nets.filter((n) => n.ends.length > 1).map((n) => n.name),
  checks: checklist,
  bom: partsList,
  wires: wireTable,
  tools: toolsFor,
  cautions,
  open: openNeeds,
  addresses: gridAddressTables,
  diff: ({ project, catalogue }) =>
    project.savedPlan ? planDiff({ ...project, links: project.savedPlan.links }, project, catalogue) : null,
  constants: (c) => c.netlist.expanded.hosts.flatMap((host) => pinConstants(c, host, "sketch")),
  withoutProgram: (c) => boardsWithout(c).map(({ host, why }) => ({ ref: host, label: label(c, host), why })),
  targets: (c) => TARGETS.map((t) => ({ id: t.id, name: t.name, says: t.says, unfit: t.unfit(c) })),
};

function lazily(c: Circuit): View {
  const view = {} as View & { list: Finding[] };
  let list: Finding[] | undefined;
  Object.defineProperty(view, "list", { enumerable: false, get: () => (list ??= findings(c)) });
  for (const name of Object.keys(SLICES) as Slice[])
    Object.defineProperty(view, name, {
      enumerable: true,
      configurable: true,
      get() {
        const value = SLICES[name](c, view);
        Object.defineProperty(view, name, { enumerable: true, value });
        return value;
      },
    });
  return view;
}

const views = new WeakMap<Circuit, View>();

/** The view of a project; each slice is worked out when it is read, and remembered as long as its circuit is. */
export function makeView(project: Project, catalogue: Catalogue): View {
  const c = circuitOf(project, catalogue);
  const known = views.get(c) ?? lazily(c);
  views.set(c, known);
  return known;
}
