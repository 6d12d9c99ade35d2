import { findPin, type Part, type Pin } from "../../parts/catalogue";
import { farOf, linksAt, splitEnd, type Project } from "../../project";

/** A part as it stands in the circuit: what is to be known of it here. */
interface Standing {
  ref: string;
  part: Part;
}

/** What lets a signal through from one leg to the other, on the way to a board's pin. */
const PASSES = new Set(["resistor", "diode"]);
/** What lets a light's current through, on the way to what feeds it. */
const CONDUCTS = new Set(["resistor", "diode", "led", "contact"]);

/**
 * A loose part of two legs whose need stands at one of them though either may face the board: a contact, a light, a light
 * or heat sensor, a speaker.
 */
function twoLegs(part: Part): { asks: Pin; other: Pin } | null {
  const [a, b] = part.pins;
  if (part.pins.length !== 2 || !a || !b || a.role !== "passive" || b.role !== "passive") return null;
  if (!a.need === !b.need) return null;
  return a.need ? { asks: a, other: b } : { asks: b, other: a };
}

/** Whether a leg leads to a pin that fulfils a test, along the project's wires and through loose parts of two legs. */
function leads(
  project: Project,
  instances: ReadonlyMap<string, Standing>,
  start: string,
  through: ReadonlySet<string>,
  goal: (def: Pin, part: Part) => boolean,
): boolean {
  const seen = new Set([start]);
  const own = splitEnd(start).ref;
  for (const here of seen)
    for (const l of linksAt(project, here)) {
      const next = farOf(l, here);
      if (seen.has(next)) continue;
      const { ref, pin } = splitEnd(next);
      const part = instances.get(ref)?.part;
      const def = part && findPin(part, pin);
      if (!def || ref === own) continue;
      if (goal(def, part)) return true;
      // A rail ends the way: what else hangs on it has nothing to do with this leg.
      if (def.role !== "passive" && def.role !== "signal") continue;
      seen.add(next);
      if (part.pins.length === 2 && part.elements.some((e) => through.has(e.kind)))
        for (const p of part.pins) if (p !== def) seen.add(`${ref}.${p.label}`);
    }
  return false;
}

const isHostPin = (def: Pin, part: Part) =>
  Boolean(def.offers?.length) || (part.board !== undefined && def.role === "signal");
const isRailPin = (def: Pin) => def.role.startsWith("supply-") || def.role === "ground";

/** Where the other leg of a part belongs once the need has changed legs: a light at a sinking pin hangs at the supply. */
const MIRRORED: Partial<Record<NonNullable<Pin["hook"]>, Pin["hook"]>> = { ground: "logic-supply" };

/**
 * The part as it stands in this project: where only the leg without the need leads to a board's pin, the two legs change
 * their roles, so that everything later asks at the leg that faces the board. The companions of alike legs go along.
 */
export function facing(project: Project, instances: ReadonlyMap<string, Standing>, inst: Standing): Part {
  const legs = twoLegs(inst.part);
  if (!legs) return inst.part;
  const { asks, other } = legs;
  const end = (p: Pin) => [p.label, ...(p.aliases ?? [])].map((l) => `${inst.ref}.${l}`);
  const linked = (p: Pin) => end(p).some((e) => linksAt(project, e).length > 0);
  if (!linked(other)) return inst.part;
  const faces = (p: Pin) => end(p).some((e) => leads(project, instances, e, PASSES, isHostPin));
  if (faces(asks) || !faces(other)) return inst.part;
  const polar = inst.part.elements.some((e) => e.kind === "led" || e.kind === "diode");
  // A light that only passes a signal on, as at a key that is read through it, asks for nothing there.
  const fed = !linked(asks) || end(asks).some((e) => leads(project, instances, e, CONDUCTS, isRailPin));
  if (polar && !fed) return inst.part;
  const hook = polar && other.hook ? (MIRRORED[other.hook] ?? other.hook) : other.hook;
  const turned = (p: Pin): Pin => {
    const { need: _need, hook: _hook, ...plain } = p;
    if (p === other) return { ...plain, need: asks.need };
    return hook ? { ...plain, hook } : plain;
  };
  const swap = (label: string) => (label === asks.label ? other.label : label === other.label ? asks.label : label);
  return {
    ...inst.part,
    pins: inst.part.pins.map((p) => (p === asks || p === other ? turned(p) : p)),
    companions: polar
      ? inst.part.companions
      : inst.part.companions.map((c) => ({ ...c, pin: swap(c.pin), ...(c.to && { to: swap(c.to) }) })),
  };
}
