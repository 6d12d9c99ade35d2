import type { Circuit } from "../../circuit";
import { findPin } from "../../parts/catalogue";
import { splitEnd } from "../../project";
import type { Laid, LaidWire } from "../laid/laid";

/** What lies around things of a build: where a hand slips to. */

/** A pin as people read it. */
export function told(laid: Laid, end: string): string {
  const { ref, pin } = splitEnd(end);
  const inst = laid.c.netlist.instance(ref);
  if (!inst) return end;
  const label = inst.label === ref ? ref : `${inst.label} (${ref})`;
  return `${label}, pin ${findPin(inst.part, pin)?.label ?? pin}`;
}

/** A part as people read it. */
export function named(laid: Laid, ref: string): string {
  const inst = laid.c.netlist.instance(ref);
  return !inst || inst.label === ref ? ref : `${inst.label} (${ref})`;
}

/** The pins beside a pin on its header or in its row. */
export const beside = (laid: Laid, end: string): string[] => besideOf(laid.c, end);

/** The same for a circuit that is not laid out. */
export function besideOf(c: Circuit, end: string): string[] {
  const { ref, pin } = splitEnd(end);
  const inst = c.netlist.instance(ref);
  const part = inst?.part;
  const def = part && findPin(part, pin);
  if (!inst || !part || !def) return [];
  const pins = part.pins.filter((p) => p.role !== "cable");
  if (def.at) {
    const { header, index } = def.at;
    return pins.flatMap((p) =>
      p.at?.header === header && Math.abs(p.at.index - index) === 1 ? [`${ref}.${p.label}`] : [],
    );
  }
  if (pins.some((p) => p.at)) return [];
  // The two legs of a loose part lie apart.
  if (pins.length < 3) return [];
  return inst.reading.rows.flatMap((row) => {
    const i = row.findIndex((h) => h.pin === def.label);
    return i < 0 ? [] : [row[i - 1], row[i + 1]].flatMap((h) => (h?.pin ? [`${ref}.${h.pin}`] : []));
  });
}

/** The wires at a pin. */
export const wiresAt = (laid: Laid, end: string): LaidWire[] =>
  laid.wires.filter((w) => !w.cable && (w.a === end || w.b === end));

export const farOf = (w: LaidWire, end: string): string => (w.a === end ? w.b : w.a);

/** The wire's end at another pin instead. */
export const movedTo = (w: LaidWire, end: string, to: string) => ({
  cut: [w.i],
  join: [[farOf(w, end), to]] as [string, string][],
});

/** All wires at some pins, each laid to where a pin's place is taken by another; null: an open hole, which joins nothing. */
export function exchanged(laid: Laid, to: ReadonlyMap<string, string | null>) {
  const cut: number[] = [];
  const join: [string, string][] = [];
  for (const w of laid.wires) {
    if (w.cable) continue;
    const [a, b] = [w.a, w.b].map((end) => (to.has(end) ? to.get(end)! : end));
    if (a === w.a && b === w.b) continue;
    cut.push(w.i);
    if (a && b) join.push([a, b]);
  }
  return { cut, join };
}

/** Pins of a part that have wires, in printed order. */
export const wiredPins = (laid: Laid, ref: string): string[] => {
  const inst = laid.c.netlist.instance(ref);
  const all = new Set(laid.wires.flatMap((w) => (w.cable ? [] : [w.a, w.b])));
  return (inst?.part.pins ?? []).map((p) => `${ref}.${p.label}`).filter((e) => all.has(e));
};

/** Whether two pins are one piece of metal in the plan. */
export const sameNet = (laid: Laid, a: string, b: string): boolean =>
  laid.c.netlist.netOf(a) === laid.c.netlist.netOf(b);

/** Parts that somebody puts on the bench, boards included; loose parts of the planner too. */
export const standing = (laid: Laid) => [...laid.c.netlist.expanded.instances.values()];
