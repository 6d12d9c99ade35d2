import type { Circuit } from "../circuit";
import { valueOf } from "./names";
import { runSheet, isLaid, type RunRow } from "./runsheet";

/** What a bench that is wired after one plan needs to be wired after another. */
export interface Rewire {
  takeOff: RunRow[];
  lay: RunRow[];
  partsOff: { ref: string; name: string }[];
  /** Parts that come, with their holes where they stand on a breadboard. */
  partsOn: { ref: string; name: string; to: string }[];
  /** Parts that stay and get another value or setting: a resistor, a strap, a jumper. */
  changed: { ref: string; name: string; what: string; from: string; to: string }[];
  /** Parts that stay and go somewhere else on the breadboard. */
  partsMoved: { ref: string; name: string; to: string }[];
  /** Wires that stay. */
  same: number;
}

/** A wire is the same when it joins the same places, hole for hole, in the same gauge. Its colour and number may differ. */
const sameAs = (r: RunRow) => [r.id, ...[`${r.from} ${r.holeA}`, `${r.to} ${r.holeB}`].sort(), r.awg].join("|");

/** Values and settings of a part as a person sees them: what it is worth, and what its options say. */
function settingsOf(c: Circuit, ref: string): Map<string, string> {
  const i = c.netlist.instance(ref);
  const out = new Map<string, string>();
  if (!i) return out;
  const value = valueOf(i);
  if (value) out.set("value", value);
  const options = c.project.parts.find((p) => p.ref === ref)?.options ?? {};
  for (const o of i.part.options) {
    // The value is told in its own words already.
    if (value && (o.key.startsWith("resistance") || o.key.startsWith("capacitance") || o.key === "pixels")) continue;
    const given = options[o.key] ?? ("default" in o ? o.default : undefined);
    if (given === undefined || typeof given === "object") continue;
    const choice = o.kind === "choice" ? o.choices.find((x) => x.value === given)?.label : undefined;
    out.set(o.label, choice ?? String(given));
  }
  return out;
}

function changesOf(before: Circuit, after: Circuit, part: { ref: string; name: string }): Rewire["changed"] {
  const [was, is] = [settingsOf(before, part.ref), settingsOf(after, part.ref)];
  return [...is].flatMap(([what, to]) => {
    const from = was.get(what);
    return from !== undefined && from !== to ? [{ ...part, what, from, to }] : [];
  });
}

const partsOf = (c: Circuit) =>
  new Map(
    [...c.netlist.expanded.instances.values()].map((i) => [`${i.ref} ${i.part.id}`, { ref: i.ref, name: i.part.name }]),
  );

/**
 * The difference of two plans as work: which wires come off, last laid first and so supplies first, which parts change, and
 * which wires are laid, in build order.
 */
export function rewire(before: Circuit, after: Circuit): Rewire {
  const [old, now] = [runSheet(before), runSheet(after)];
  const [oldWires, newWires] = [old.filter(isLaid), now.filter(isLaid)];
  const had = new Set(oldWires.map(sameAs));
  const has = new Set(newWires.map(sameAs));
  const [was, is] = [partsOf(before), partsOf(after)];
  const place = (rows: RunRow[], ref: string) =>
    rows.find((r) => r.kind === "turn" && r.from === ref)?.note.match(/: ((?:\S+ in \S+, )*\S+ in [^.]+)\./)?.[1] ?? "";
  const stay = [...is].filter(([k]) => was.has(k)).map(([, p]) => p);
  return {
    takeOff: oldWires.filter((r) => !has.has(sameAs(r))).reverse(),
    lay: newWires.filter((r) => !had.has(sameAs(r))),
    partsOff: [...was].filter(([k]) => !is.has(k)).map(([, p]) => p),
    partsOn: [...is].filter(([k]) => !was.has(k)).map(([, p]) => ({ ...p, to: place(now, p.ref) })),
    changed: stay.flatMap((p) => changesOf(before, after, p)),
    partsMoved: stay.flatMap((p) => {
      const [a, b] = [place(old, p.ref), place(now, p.ref)];
      return a && b && a !== b ? [{ ...p, to: b }] : [];
    }),
    same: newWires.filter((r) => had.has(sameAs(r))).length,
  };
}
