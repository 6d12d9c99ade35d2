import { z } from "zod";
import {
  findPin,
  isSoftwareBus,
  isShipped,
  ChosenPrintSchema,
  optionProblems,
  PartSchema,
  printProblems,
  printsOf,
  withOptions,
  type Catalogue,
  type ChosenPrint,
  type Part,
} from "../parts/catalogue";
import { definitionOf, partLookup, splitEnd } from "./endpoint";
import { nextRef } from "./refs";
import { refsOf, RuleSchema } from "./rules";
import {
  BoxPlaceSchema,
  BENCH_LISTS,
  BoxSchema,
  BreadboardSchema,
  CompanionKeySchema,
  CompanionValueSchema,
  DrawerSchema,
  FixedRulesSchema,
  HouseRulesSchema,
  KitSchema,
  LessonSchema,
  MOST_REMARKS,
  RemarkSchema,
  LESSON_DEFAULT,
  LinkSchema,
  TitleSchema,
  PlaceSchema,
  ProjectSchema,
  SleepSchema,
  SpotSchema,
  type BenchEntry,
  type Link,
  type Project,
  type ProjectPart,
} from "./schema";

/** An edit is data. Undo, history, fixes and their previews are all made of these. */
const BaseEdit = z.discriminatedUnion("type", [
  z.strictObject({ type: z.literal("setTitle"), title: TitleSchema }),
  z.strictObject({
    type: z.literal("setBrief"),
    brief: z.strictObject({
      goal: z.string().max(2000).optional(),
      stage: z.enum(["prototype", "keep"]).optional(),
      notes: z.string().max(10_000).optional(),
      place: PlaceSchema.optional(),
      iron: z.boolean().optional(),
    }),
  }),
  z.strictObject({ type: z.literal("setHouseRules"), rules: HouseRulesSchema }),
  /** Settles rules as they are now, for a class; null lets them be changed again. */
  z.strictObject({ type: z.literal("fixHouseRules"), fixed: FixedRulesSchema.nullable() }),
  /** Which grounds must stay apart: a list for each, of parts or sides of parts (`M1.far`); none lets all be joined. */
  z.strictObject({ type: z.literal("setIsolated"), isolated: ProjectSchema.shape.isolated.unwrap() }),
  z.strictObject({
    type: z.literal("addPart"),
    part: z.string().max(60),
    ref: z.string().optional(),
    label: z.string().max(60).optional(),
    options: z.record(z.string(), z.unknown()).optional(),
    companions: z.partialRecord(CompanionKeySchema, CompanionValueSchema).optional(),
  }),
  z.strictObject({ type: z.literal("removePart"), ref: z.string() }),
  z.strictObject({ type: z.literal("setLabel"), ref: z.string(), label: z.string().max(60) }),
  /** Own code of a place in the programs of a target; empty takes it out. */
  z.strictObject({
    type: z.literal("setCode"),
    target: z.string().max(40),
    region: z.string().max(60),
    text: z.string().max(100_000),
  }),
  /** What the programs do when; absent: what is suggested from the parts. */
  z.strictObject({ type: z.literal("setRules"), rules: z.array(RuleSchema).max(100).optional() }),
  z.strictObject({ type: z.literal("setOption"), ref: z.string(), key: z.string(), value: z.unknown() }),
  /** How the header of the one in hand reads, confirmed; null: nobody has looked. */
  z.strictObject({ type: z.literal("setPrint"), ref: z.string(), print: ChosenPrintSchema.nullable() }),
  z.strictObject({
    type: z.literal("setCompanion"),
    ref: z.string(),
    key: CompanionKeySchema,
    value: CompanionValueSchema.optional(),
  }),
  z.strictObject({ type: z.literal("addLink"), link: LinkSchema }),
  z.strictObject({ type: z.literal("removeLink"), from: z.string(), to: z.string() }),
  z.strictObject({ type: z.literal("lock"), from: z.string(), to: z.string(), locked: z.boolean() }),
  /** A wire's own length, gauge and colour; null goes back to what holds for its part or net. */
  z.strictObject({
    type: z.literal("setLink"),
    from: z.string(),
    to: z.string(),
    cm: LinkSchema.shape.cm.unwrap().nullable().optional(),
    awg: LinkSchema.shape.awg.unwrap().nullable().optional(),
    colour: LinkSchema.shape.colour.unwrap().nullable().optional(),
  }),
  z.strictObject({ type: z.literal("moveLink"), end: z.string(), from: z.string(), to: z.string() }),
  z.strictObject({ type: z.literal("setPlan"), parts: ProjectSchema.shape.parts, links: ProjectSchema.shape.links }),
  z.strictObject({ type: z.literal("savePlan"), at: z.string().max(40), name: z.string().max(60).optional() }),
  z.strictObject({ type: z.literal("setHost"), ref: z.string(), host: z.string() }),
  z.strictObject({ type: z.literal("setWanted"), ref: z.string(), pin: z.string().max(20), wanted: z.boolean() }),
  z.strictObject({ type: z.literal("setSoftware"), ref: z.string(), group: z.string().max(40), software: z.boolean() }),
  /** The clock that a bus shall run at; null goes back to the usual one. */
  z.strictObject({
    type: z.literal("setBus"),
    host: z.string().max(10),
    bus: z.string().max(12),
    clock_Hz: z.number().positive().max(1e9).nullable(),
  }),
  /** Lets a board sleep between readings; null keeps it awake. */
  z.strictObject({ type: z.literal("setSleep"), ref: z.string(), sleep: SleepSchema.nullable() }),
  z.strictObject({ type: z.literal("setWire"), ref: z.string(), wire_cm: z.number().positive().max(2000).nullable() }),
  /** Puts a box of the loom drawing somewhere; null lets the layout place it again, no reference all of them. */
  z.strictObject({
    type: z.literal("moveBox"),
    ref: z.string().max(20).optional(),
    at: BoxPlaceSchema.nullable(),
  }),
  /** Changes what is given: the number of benches, or the spares of the kinds named. */
  z.strictObject({ type: z.literal("setKit"), kit: KitSchema.partial() }),
  /** Changes what is given of the lesson; `made`: what was printed of it, null forgets that. */
  z.strictObject({
    type: z.literal("setLesson"),
    lesson: LessonSchema.omit({ made: true }).partial(),
    made: LessonSchema.shape.made.unwrap().nullable().optional(),
  }),
  /** Sides of the box, those that are given; null takes it out of the plan. */
  z.strictObject({ type: z.literal("setBox"), box: BoxSchema.omit({ at: true }).partial().nullable() }),
  /** Puts a part somewhere in a wall of the box; null lets it be arranged again. */
  z.strictObject({
    type: z.literal("moveOnPanel"),
    ref: z.string().max(20),
    at: BoxSchema.shape.at.valueType.nullable(),
  }),
  /** Takes a placement on breadboards over; null goes back to wires without one. */
  z.strictObject({ type: z.literal("setBreadboard"), breadboard: BreadboardSchema.nullable() }),
  /** Moves one part on the breadboard, or takes it off. */
  z.strictObject({ type: z.literal("moveOnBoard"), ref: z.string().max(20), spot: SpotSchema.nullable() }),
  z.strictObject({ type: z.literal("changePart"), ref: z.string(), part: z.string().max(60) }),
  /** Replaces what is given: a list of values, or the counts of the parts named (0 takes one out). */
  z.strictObject({ type: z.literal("setDrawer"), drawer: DrawerSchema.partial() }),
  z.strictObject({ type: z.literal("setOwnPart"), part: PartSchema }),
  z.strictObject({ type: z.literal("removeOwnPart"), id: z.string().max(60) }),
  z.strictObject({ type: z.literal("addRemark"), remark: RemarkSchema }),
  /** What became of a remark; null: it is open again. */
  z.strictObject({
    type: z.literal("closeRemark"),
    id: z.string().max(40),
    done: RemarkSchema.shape.done.unwrap().nullable(),
  }),
  z.strictObject({ type: z.literal("removeRemark"), id: z.string().max(40) }),
  z.strictObject({
    type: z.literal("acknowledge"),
    rule: z.string(),
    at: z.array(z.string()),
    reason: z.string().max(300),
  }),
  z.strictObject({
    type: z.literal("tick"),
    list: z.enum(BENCH_LISTS),
    id: z.string().max(120),
    done: z.boolean(),
    reading: z.string().max(80).optional(),
    at: z.string().max(40),
  }),
]);
export const EditSchema = z.union([
  BaseEdit,
  z.strictObject({ type: z.literal("batch"), edits: z.array(BaseEdit).max(200) }),
]);
export type BasicEdit = z.infer<typeof BaseEdit>;
export type Edit = z.infer<typeof EditSchema>;

/** So many lines of the bench's log are kept; the oldest go first. */
const MOST_LOGGED = 2000;

/** A reading as a line of the log: known by when and what. */
const logged = (e: BenchEntry & { reading: string }): BenchEntry => ({
  ...e,
  list: "log",
  id: `${e.at} ${e.id}`.slice(0, 120),
});

function shortened(bench: BenchEntry[]): BenchEntry[] {
  let over = bench.reduce((n, b) => n + (b.list === "log" ? 1 : 0), 0) - MOST_LOGGED;
  return over <= 0 ? bench : bench.filter((b) => b.list !== "log" || over-- <= 0);
}

const same = (l: Link, a: string, b: string) => (l.from === a && l.to === b) || (l.from === b && l.to === a);
const touches = (l: Link, ref: string) => splitEnd(l.from).ref === ref || splitEnd(l.to).ref === ref;
const mapPart = (p: Project, ref: string, f: (part: ProjectPart) => ProjectPart): Project => ({
  ...p,
  parts: p.parts.map((x) => (x.ref === ref ? f(x) : x)),
});
const without = <T extends object>(o: T, key: PropertyKey): T =>
  Object.fromEntries(Object.entries(o).filter(([k]) => k !== key)) as T;

/** A part's entry with a name put into one of its lists, or taken out; an empty list goes. */
function withList(x: ProjectPart, key: "wanted" | "software", name: string, on: boolean): ProjectPart {
  const list = [...(x[key] ?? []).filter((n) => n !== name), ...(on ? [name] : [])];
  return list.length ? { ...x, [key]: list } : without(x, key);
}

/** Wishes about pins and groups that the definition still has. */
function withKnown(x: ProjectPart, part: Part): ProjectPart {
  const keep = (list: string[] | undefined, known: (name: string) => boolean) => list?.filter(known) ?? [];
  const wanted = keep(x.wanted, (l) => findPin(part, l)?.need?.optional ?? false);
  const software = keep(x.software, (n) => part.groups.some((g) => g.id === n && isSoftwareBus(g.kind)));
  return {
    ...without(without(x, "wanted"), "software"),
    ...(wanted.length && { wanted }),
    ...(software.length && { software }),
  };
}

/** An own part put in or changed, with what hangs on it. */
const withOwnPart = (p: Project, part: Part): Project => ({
  ...p,
  customParts: p.customParts.some((x) => x.id === part.id)
    ? p.customParts.map((x) => (x.id === part.id ? part : x))
    : [...p.customParts, part],
  // Options that the part no longer has would make the project unreadable.
  parts: p.parts.map((y) => {
    if (y.part !== part.id) return y;
    const known = withKnown(y, part);
    const x = known.print && printProblems(part, known.print).length ? without(known, "print") : known;
    if (!x.options) return x;
    const bad = new Set(optionProblems(part, x.options).map((o) => o.key));
    return bad.size ? { ...x, options: Object.fromEntries(Object.entries(x.options).filter(([k]) => !bad.has(k))) } : x;
  }),
  // Wires to pins that are no longer there would point nowhere.
  links: p.links.filter((l) =>
    [l.from, l.to].every((end) => {
      const { ref, pin } = splitEnd(end);
      const entry = p.parts.find((x) => x.ref === ref);
      return entry?.part !== part.id || findPin(withOptions(part, entry.options ?? {}), pin) !== undefined;
    }),
  ),
});

const ownEntry = <T>(o: Readonly<Record<string, T>> | undefined, key: string): T | undefined =>
  o && Object.hasOwn(o, key) ? o[key] : undefined;

/** The choices that go with a known print of a part. */
const printChoices = (part: Part, print: ChosenPrint): Readonly<Record<string, string>> =>
  ("id" in print && printsOf(part).find((y) => y.id === print.id)?.when) || {};

/** A part's entry with a print that was confirmed, and the choices that go with that print. */
function withPrintOf(p: Project, parts: ProjectPart[], ref: string, print: ChosenPrint, c: Catalogue): Project {
  const all = parts.map((x): ProjectPart => {
    if (x.ref !== ref) return x;
    const part = p.customParts.find((q) => q.id === x.part) ?? c.get(x.part);
    const when = part ? printChoices(part, print) : {};
    return { ...x, print, ...(Object.keys(when).length && { options: { ...x.options, ...when } }) };
  });
  return { ...p, parts: all };
}

type Handlers = {
  [T in BasicEdit["type"]]: (p: Project, e: Extract<BasicEdit, { type: T }>, c: Catalogue) => Project;
};

const HANDLERS: Handlers = {
  setTitle: (p, e) => ({ ...p, title: e.title }),
  setBrief: (p, e) => ({ ...p, brief: { ...p.brief, ...e.brief } }),
  setIsolated: (p, e) => ({ ...p, isolated: e.isolated }),
  // What a class has settled stays, whatever else is changed along with it.
  setHouseRules: (p, e) => {
    const fixed = new Set<string>(p.fixedRules?.keys);
    const rules = Object.fromEntries(Object.entries(e.rules).filter(([k]) => !fixed.has(k)));
    return { ...p, houseRules: { ...p.houseRules, ...rules } };
  },
  fixHouseRules: (p, e) => (e.fixed ? { ...p, fixedRules: e.fixed } : without(p, "fixedRules")),
  addPart: (p, e, c) => {
    const entry: ProjectPart = { ref: e.ref ?? nextRef(p, e.part), part: e.part };
    if (e.label) entry.label = e.label;
    if (e.options && Object.keys(e.options).length) entry.options = e.options;
    if (e.companions && Object.keys(e.companions).length) entry.companions = e.companions;
    const part = c.get(e.part);
    // What was confirmed for the one in the drawer need not be looked at again.
    const known = ownEntry(p.drawer.prints, e.part);
    // Another choice now is another board, such as one with a regulator: that one has not been seen.
    const other = Object.entries(part && known ? printChoices(part, known) : {}).some(
      ([k, v]) => e.options?.[k] !== undefined && String(e.options[k]).toLowerCase() !== v.toLowerCase(),
    );
    if (part && known && !other && printProblems(part, known).length === 0)
      return withPrintOf(p, [...p.parts, entry], entry.ref, known, c);
    return { ...p, parts: [...p.parts, entry] };
  },
  setPrint: (p, e, c) => {
    if (!e.print) return mapPart(p, e.ref, (x) => without(x, "print"));
    const entry = p.parts.find((x) => x.ref === e.ref);
    const part = entry && definitionOf(p, c, entry);
    // One that the part can't have would make the project unreadable.
    if (!part || printProblems(part, e.print).length) return p;
    return withPrintOf(p, p.parts, e.ref, e.print, c);
  },
  removePart: (p, e) => ({
    ...p,
    parts: p.parts.filter((x) => x.ref !== e.ref).map((x) => (x.host === e.ref ? without(x, "host") : x)),
    links: p.links.filter((l) => !touches(l, e.ref)),
    buses: p.buses.filter((b) => b.host !== e.ref),
    // A rule without one of its parts says nothing any more.
    ...(p.rules && { rules: p.rules.filter((r) => !refsOf(r).includes(e.ref)) }),
    isolated: p.isolated.map((list) => list.filter((m) => m.split(".")[0] !== e.ref)).filter((list) => list.length > 0),
  }),
  setCode: (p, e) => {
    const list = e.text ? { ...p.code[e.target], [e.region]: e.text } : without(p.code[e.target] ?? {}, e.region);
    return {
      ...p,
      code: Object.keys(list).length ? { ...p.code, [e.target]: list } : without(p.code, e.target),
    };
  },
  setRules: (p, e) => (e.rules ? { ...p, rules: e.rules } : without(p, "rules")),
  setLabel: (p, e) => mapPart(p, e.ref, (x) => (e.label ? { ...x, label: e.label } : without(x, "label"))),
  setOption: (p, e) =>
    mapPart(p, e.ref, (x) => ({
      ...x,
      options:
        e.value === undefined || e.value === null
          ? without(x.options ?? {}, e.key)
          : { ...x.options, [e.key]: e.value },
    })),
  setCompanion: (p, e) =>
    mapPart(p, e.ref, (x) => ({
      ...x,
      companions: e.value === undefined ? without(x.companions ?? {}, e.key) : { ...x.companions, [e.key]: e.value },
    })),
  addLink: (p, e) => (p.links.some((l) => same(l, e.link.from, e.link.to)) ? p : { ...p, links: [...p.links, e.link] }),
  removeLink: (p, e) => ({ ...p, links: p.links.filter((l) => !same(l, e.from, e.to)) }),
  lock: (p, e) => ({
    ...p,
    links: p.links.map((l) =>
      same(l, e.from, e.to) ? { ...without(l, "locked"), ...(e.locked && { locked: true }) } : l,
    ),
  }),
  moveLink: (p, e) => ({
    ...p,
    links: p.links.map((l) => (same(l, e.end, e.from) ? { ...l, from: e.end, to: e.to } : l)),
  }),
  setLink: (p, e) => ({
    ...p,
    links: p.links.map((l) => {
      if (!same(l, e.from, e.to)) return l;
      let now = l;
      for (const key of ["cm", "awg", "colour"] as const) {
        const value = e[key];
        if (value === null) now = without(now, key);
        else if (value !== undefined) now = { ...now, [key]: value };
      }
      return now;
    }),
  }),
  setPlan: (p, e) => ({ ...p, parts: e.parts, links: e.links }),
  savePlan: (p, e) => ({ ...p, savedPlan: { at: e.at, ...(e.name && { name: e.name }), links: p.links } }),
  // Wires to the old host's pins mean nothing on the new one.
  setHost: (p, e, c) => {
    const partOf = partLookup(p, c);
    const offers = (end: string) => partOf(splitEnd(end).ref)?.pins.some((x) => x.offers?.length) ?? false;
    return {
      ...mapPart(p, e.ref, (x) => ({ ...x, host: e.host })),
      links: p.links.filter((l) => {
        const other = splitEnd(l.from).ref === e.ref ? l.to : splitEnd(l.to).ref === e.ref ? l.from : null;
        return other === null || splitEnd(other).ref === e.host || !offers(other);
      }),
    };
  },
  setWanted: (p, e) => ({
    ...mapPart(p, e.ref, (x) => withList(x, "wanted", e.pin, e.wanted)),
    links: e.wanted ? p.links : p.links.filter((l) => l.from !== `${e.ref}.${e.pin}` && l.to !== `${e.ref}.${e.pin}`),
  }),
  setSoftware: (p, e) => mapPart(p, e.ref, (x) => withList(x, "software", e.group, e.software)),
  setBus: (p, e) => {
    const rest = p.buses.filter((b) => b.host !== e.host || b.bus !== e.bus);
    const known = p.parts.some((x) => x.ref === e.host);
    return {
      ...p,
      buses: e.clock_Hz !== null && known ? [...rest, { host: e.host, bus: e.bus, clock_Hz: e.clock_Hz }] : rest,
    };
  },
  // Only a board sleeps, and only for some of the time: anything else could not be read again.
  setSleep: (p, e, c) =>
    e.sleep && (e.sleep.awake_s >= e.sleep.every_s || !partLookup(p, c)(e.ref)?.board)
      ? p
      : mapPart(p, e.ref, (x) => (e.sleep ? { ...x, sleep: e.sleep } : without(x, "sleep"))),
  setWire: (p, e) =>
    mapPart(p, e.ref, (x) => (e.wire_cm === null ? without(x, "wire_cm") : { ...x, wire_cm: e.wire_cm })),
  moveBox: (p, e) => {
    const others = e.ref ? without(p.drawing?.loom ?? {}, e.ref) : {};
    const boxes = e.ref && e.at ? { ...others, [e.ref]: e.at } : others;
    return Object.keys(boxes).length ? { ...p, drawing: { loom: boxes } } : without(p, "drawing");
  },
  setKit: (p, e) => ({
    ...p,
    kit: {
      benches: e.kit.benches ?? p.kit?.benches ?? 1,
      spares_percent: { ...p.kit?.spares_percent, ...e.kit.spares_percent },
    },
  }),
  setLesson: (p, e) => {
    const { made: was, ...wish } = { ...LESSON_DEFAULT, ...p.lesson };
    const made = e.made === undefined ? was : (e.made ?? undefined);
    return { ...p, lesson: { ...wish, ...e.lesson, ...(made && { made }) } };
  },
  setBox: (p, e) =>
    e.box ? { ...p, box: { w_mm: 120, h_mm: 80, d_mm: 40, at: {}, ...p.box, ...e.box } } : without(p, "box"),
  moveOnPanel: (p, e) => {
    if (!p.box) return p;
    const others = without(p.box.at, e.ref);
    return { ...p, box: { ...p.box, at: e.at ? { ...others, [e.ref]: e.at } : others } };
  },
  setBreadboard: (p, e) => (e.breadboard ? { ...p, breadboard: e.breadboard } : without(p, "breadboard")),
  moveOnBoard: (p, e) => {
    if (!p.breadboard) return p;
    const others = without(p.breadboard.at, e.ref);
    const { by: _planned, ...mine } = p.breadboard;
    return { ...p, breadboard: { ...mine, at: e.spot ? { ...others, [e.ref]: e.spot } : others } };
  },
  // Pins of another board mean other things, so only cables survive the change.
  changePart: (p, e, c) => {
    const isBoard = (c.get(e.part) ?? p.customParts.find((x) => x.id === e.part))?.board !== undefined;
    const changed = mapPart(p, e.ref, (x) => {
      const next = without(without({ ...x, part: e.part }, "options"), "print");
      return isBoard ? next : without(next, "sleep");
    });
    const part = partLookup(changed, c)(e.ref);
    const cables = new Set(part?.pins.filter((x) => x.role === "cable").map((x) => `${e.ref}.${x.label}`));
    return { ...changed, links: p.links.filter((l) => !touches(l, e.ref) || cables.has(l.from) || cables.has(l.to)) };
  },
  setDrawer: (p, e) => ({
    ...p,
    drawer: {
      ...p.drawer,
      ...e.drawer,
      parts: Object.fromEntries(Object.entries({ ...p.drawer.parts, ...e.drawer.parts }).filter(([, n]) => n > 0)),
      ...(e.drawer.prints && { prints: { ...p.drawer.prints, ...e.drawer.prints } }),
    },
  }),
  // Under a shipped part's id it would take that one's place.
  setOwnPart: (p, e, c) => (isShipped(c, e.part.id) ? p : withOwnPart(p, e.part)),
  // A part that is in use stays until it is taken out of the list.
  removeOwnPart: (p, e) =>
    p.parts.some((x) => x.part === e.id) ? p : { ...p, customParts: p.customParts.filter((x) => x.id !== e.id) },
  // The same one twice, or one too many, changes nothing.
  addRemark: (p, e) =>
    (p.remarks ?? []).length >= MOST_REMARKS || p.remarks?.some((r) => r.id === e.remark.id)
      ? p
      : { ...p, remarks: [...(p.remarks ?? []), e.remark] },
  closeRemark: (p, e) =>
    p.remarks
      ? {
          ...p,
          remarks: p.remarks.map((r) =>
            r.id === e.id ? { ...without(r, "done"), ...(e.done && { done: e.done }) } : r,
          ),
        }
      : p,
  removeRemark: (p, e) => {
    const left = (p.remarks ?? []).filter((r) => r.id !== e.id);
    return left.length ? { ...p, remarks: left } : without(p, "remarks");
  },
  acknowledge: (p, e) => {
    const key = JSON.stringify(e.at);
    const rest = p.acknowledged.filter((a) => a.rule !== e.rule || JSON.stringify(a.at) !== key);
    return { ...p, acknowledged: e.reason ? [...rest, { rule: e.rule, at: e.at, reason: e.reason }] : rest };
  },
  tick: (p, e) => {
    const rest = p.bench.filter((b) => b.list !== e.list || b.id !== e.id);
    const entry = { at: e.at, list: e.list, id: e.id, done: e.done, ...(e.reading && { reading: e.reading }) };
    const now = e.done || e.reading ? [...rest, entry] : rest;
    // A reading is on record for good, whatever is read there later.
    const kept = e.list === "checks" && e.reading ? [...now, logged({ ...entry, reading: e.reading })] : now;
    return { ...p, bench: shortened(kept) };
  },
};

/** Applies one edit and returns the new project; the old one is untouched. Edits about unknown refs change nothing. */
export function applyEdit(project: Project, edit: Edit, catalogue: Catalogue): Project {
  if (edit.type === "batch") return edit.edits.reduce((p, e) => applyEdit(p, e, catalogue), project);
  const handle = HANDLERS[edit.type] as (p: Project, e: BasicEdit, c: Catalogue) => Project;
  return handle(project, edit, catalogue);
}

const SAYS: { [T in BasicEdit["type"]]: (e: Extract<BasicEdit, { type: T }>) => string } = {
  setTitle: (e) => `title "${e.title}"`,
  setBrief: () => "brief",
  setIsolated: (e) => (e.isolated.length ? "grounds that stay apart" : "grounds may be joined"),
  setHouseRules: (e) => `house rule ${Object.keys(e.rules).join(", ")}`,
  fixHouseRules: (e) => (e.fixed ? `rules settled by ${e.fixed.by}` : "rules may be changed again"),
  addPart: (e) => `add ${e.part}`,
  removePart: (e) => `remove ${e.ref}`,
  setRules: (e) => (e.rules ? `${e.rules.length} ${e.rules.length === 1 ? "rule" : "rules"}` : "rules as suggested"),
  setCode: (e) => `own code: ${e.region}`,
  setLabel: (e) => `name ${e.ref} "${e.label}"`,
  setOption: (e) => `${e.ref} ${e.key} ${e.value ?? "as usual"}`,
  setPrint: (e) => (e.print ? `${e.ref}: header confirmed` : `${e.ref}: header not confirmed`),
  setCompanion: (e) => `${e.ref} ${e.key}`,
  addLink: (e) => `wire ${e.link.from} to ${e.link.to}`,
  removeLink: (e) => `unwire ${e.from} from ${e.to}`,
  lock: (e) => `${e.locked ? "lock" : "unlock"} ${e.from}`,
  moveLink: (e) => `move ${e.end} to ${e.to}`,
  setLink: (e) =>
    `wire ${e.from} to ${e.to}: ${e.cm ? `${e.cm} cm ` : ""}${e.awg ? `${e.awg} AWG ` : ""}${e.colour ?? ""}`.trim(),
  setPlan: () => "plan the pins",
  savePlan: (e) => (e.name ? `save the plan "${e.name}"` : "save the plan to compare with"),
  setHost: (e) => `${e.ref} on ${e.host}`,
  setWanted: (e) => `${e.wanted ? "wire" : "leave"} ${e.ref}.${e.pin}`,
  setSoftware: (e) => `${e.ref} ${e.group} ${e.software ? "in software" : "by a controller only"}`,
  setBus: (e) => (e.clock_Hz === null ? `${e.bus} at its usual clock` : `${e.bus} at ${e.clock_Hz / 1000} kHz`),
  setSleep: (e) => (e.sleep ? `${e.ref} sleeps between readings` : `${e.ref} stays awake`),
  setWire: (e) => `wires of ${e.ref} ${e.wire_cm ?? "as usual"} cm`,
  moveBox: (e) => (e.at ? `move ${e.ref} in the drawing` : "let the drawing be laid out"),
  setKit: (e) => (e.kit.benches ? `kits for ${e.kit.benches}` : "spares"),
  setLesson: (e) => (e.made === undefined ? "the lesson" : e.made ? "the lesson was printed" : "nothing is printed"),
  setBox: (e) => (e.box ? "the box" : "no box"),
  moveOnPanel: (e) => (e.at ? `move ${e.ref} on the box` : `arrange ${e.ref} on the box`),
  setBreadboard: (e) => (e.breadboard ? "take the breadboard placement" : "no breadboard placement"),
  moveOnBoard: (e) => (e.spot ? `move ${e.ref} on the breadboard` : `take ${e.ref} off the breadboard`),
  changePart: (e) => `change ${e.ref} to ${e.part}`,
  setDrawer: () => "what is in the drawer",
  setOwnPart: (e) => `own part ${e.part.name}`,
  removeOwnPart: (e) => `remove own part ${e.id}`,
  addRemark: (e) => `a remark${e.remark.by ? ` by ${e.remark.by}` : ""}`,
  closeRemark: (e) => (e.done ? "a remark is done" : "a remark is open again"),
  removeRemark: () => "take a remark out",
  acknowledge: (e) => `acknowledge ${e.rule}`,
  tick: (e) => `${e.done ? "tick" : "untick"} ${e.id}`,
};

/** A few words for the history: "move D1.A to B1.GP14". */
export function describeEdit(edit: Edit): string {
  if (edit.type === "batch") return edit.edits.map(describeEdit).slice(0, 3).join(", ");
  return (SAYS[edit.type] as (e: BasicEdit) => string)(edit);
}
