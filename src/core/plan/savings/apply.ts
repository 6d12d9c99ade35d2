import { settle } from "../advice";
import { assign, chainAfter, isPlanned, refreshCompanions } from "../assign";
import { PartSchema, type Catalogue, type Part } from "../../parts/catalogue";
import { evaluate } from "../../quantity";
import { applyEdit, defaultHost, nextRef, partLookup, type Project } from "../../project";
import { savings, type Saving } from "./compare";
import { gridPart, type GridKind } from "./grid";
import type { Ask, Want } from "./methods";

/** A number of alike parts of a project that could share pins. */
export interface Alike {
  want: Want;
  part: string;
  name: string;
  refs: string[];
  ask: Ask;
}

const WANTS: { want: Want; test(p: Part): boolean }[] = [
  { want: "lights", test: (p) => p.id.startsWith("discrete/led-") && p.pins.filter((x) => x.need).length === 1 },
  { want: "keys", test: (p) => p.pins.some((x) => x.hook === "button-return") },
  { want: "digits", test: (p) => p.id.startsWith("discrete/digit-") },
  {
    want: "sensors",
    test: (p) => p.pins.filter((x) => x.need).length === 1 && p.pins.some((x) => x.need?.kind === "adc"),
  },
];

/** What the project's board offers, for the sums: its voltage and what a pin likes to carry. */
export function boardFacts(project: Project, catalogue: Catalogue): { V: number; pin_A: number } {
  const partOf = partLookup(project, catalogue);
  const host = defaultHost(project, partOf);
  const board = host ? partOf(host) : undefined;
  const pin = board?.pins.find((p) => p.offers?.length && p.level);
  const level = pin?.level ? board!.levels[pin.level] : undefined;
  const V = board?.board ? evaluate(board.supplies[board.board.logicSupply]!.V.typ) : 5;
  return { V, pin_A: (level?.pin_mA?.recommended ?? 8) / 1000 };
}

/** From this many alike parts on, sharing pins is worth a thought. */
const FEW = 4;

/** Groups of alike parts on the first board that could be connected in another way, the largest first. */
export function alikeParts(project: Project, catalogue: Catalogue): Alike[] {
  const partOf = partLookup(project, catalogue);
  const facts = boardFacts(project, catalogue);
  const groups = new Map<string, string[]>();
  for (const p of project.parts) groups.set(p.part, [...(groups.get(p.part) ?? []), p.ref]);
  return [...groups]
    .flatMap(([part, refs]): Alike[] => {
      const def = partOf(refs[0]!);
      const kind = def && WANTS.find((w) => w.test(def));
      if (!kind || refs.length < FEW) return [];
      const mA = Number(project.parts.find((p) => p.ref === refs[0])?.options?.current_mA ?? 8);
      return [
        {
          want: kind.want,
          part,
          name: def.name,
          refs,
          ask: { want: kind.want, n: refs.length, I: mA / 1000, ...facts },
        },
      ];
    })
    .sort((a, b) => b.refs.length - a.refs.length);
}

export type Applied = { ok: true; project: Project; says: string } | { ok: false; why: string };

const GRIDS: ReadonlySet<string> = new Set(["key-grid", "key-grid-diodes", "light-grid", "light-ring"]);

function asGrid(project: Project, catalogue: Catalogue, a: Alike, kind: GridKind): Project {
  const of = partLookup(project, catalogue)(a.refs[0]!)!;
  const taken = new Set(project.customParts.map((p) => p.id));
  const names = a.refs.map((r) => project.parts.find((p) => p.ref === r)?.label ?? r);
  const part = PartSchema.parse(gridPart({ kind, of, names, V: a.ask.V, pin_A: a.ask.pin_A, I: a.ask.I }, taken));
  let now = applyEdit(project, { type: "setOwnPart", part }, catalogue);
  for (const ref of a.refs) now = applyEdit(now, { type: "removePart", ref }, catalogue);
  return applyEdit(
    now,
    { type: "addPart", part: part.id, ref: nextRef(now, part.id), label: a.want === "keys" ? "Keys" : "Lights" },
    catalogue,
  );
}

/** Chips join the list, and the alike parts go behind them, pin after pin. */
function behindChips(project: Project, catalogue: Catalogue, a: Alike, s: Saving): Project {
  const def = catalogue.get(s.chip!)!;
  const many = s.parts.find((p) => p.part === s.chip)?.count ?? 1;
  let now = project;
  // What the chip's pin likes is less than what a board's pin likes: the lights follow, with a margin for the worst case.
  const mA = s.pin_A === null ? null : Math.max(1, Math.floor(s.pin_A * 1000 * 0.8));
  if (a.want === "lights" && mA !== null && mA < a.ask.I * 1000) {
    const edited = a.refs.reduce(
      (p, ref) => applyEdit(p, { type: "setOption", ref, key: "current_mA", value: mA }, catalogue),
      now,
    );
    now = refreshCompanions(now, edited, catalogue);
  }
  const places: string[] = [];
  let last: string | null = null;
  for (let i = 0; i < many; i++) {
    const ref = nextRef(now, def.id);
    now = applyEdit(now, { type: "addPart", part: def.id, ref }, catalogue);
    if (last && def.groups.some((g) => g.kind === "chain")) now = chainAfter(now, catalogue, ref, last);
    last = ref;
    places.push(...def.pins.filter((p) => p.offers?.length).map((p) => `${ref}.${p.label}`));
  }
  const partOf = partLookup(now, catalogue);
  const ends = a.refs.flatMap((r) =>
    partOf(r)!
      .pins.filter((p) => p.need)
      .map((p) => `${r}.${p.label}`),
  );
  const kept = now.links.filter((l) => l.locked || !(ends.includes(l.from) || ends.includes(l.to)));
  const free = ends.filter((e) => !kept.some((l) => [l.from, l.to].includes(e)));
  return { ...now, links: [...kept, ...free.slice(0, places.length).map((from, i) => ({ from, to: places[i]! }))] };
}

/** Connects alike parts in another way and plans everything; the project is only changed when it fits. */
export function applySaving(project: Project, catalogue: Catalogue, a: Alike, wayId: string): Applied {
  const way = savings(a.ask).find((s) => s.id === wayId);
  if (!way?.builds) return { ok: false, why: "this way is not one that can be put in by itself yet" };
  const next = GRIDS.has(way.builds)
    ? asGrid(project, catalogue, a, way.builds as GridKind)
    : behindChips(project, catalogue, a, way);
  const planned = assign(next, catalogue);
  if (!isPlanned(planned)) return { ok: false, why: planned.clash ?? "the pins do not fit" };
  return { ok: true, project: settle(planned.project, catalogue), says: `${a.refs.length} × ${a.name}: ${way.name}` };
}

/** Definitions that the ways name, for callers that load parts on demand. */
export const SAVING_PARTS = [
  "module/74hc595",
  "module/mcp23017",
  "module/cd4067",
  "module/mcp3008",
  "module/ads1115",
  "discrete/diode-1n4148",
];
