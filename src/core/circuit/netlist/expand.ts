import {
  findPin,
  optionVars,
  readingOf,
  withOptions,
  type Catalogue,
  type Part,
  type Reading,
} from "../../parts/catalogue";
import {
  defaultHost,
  houseRule,
  joinEnd,
  partLookup,
  splitEnd,
  toldHowMuch,
  type CompanionKey,
  type CompanionValue,
  type End,
  type Project,
  type Sleep,
} from "../../project";

import { facing } from "./legs";

/** A part as it stands in the circuit: options applied, inserted companions included. */
export interface Instance {
  ref: string;
  part: Part;
  vars: Record<string, number>;
  label: string;
  /** Its header as printed: confirmed, or the commonest until somebody looks. */
  reading: Reading;
  host?: string;
  /** A board that sleeps between readings. */
  sleep?: Sleep;
  /** Set for a companion: the part it was inserted for, by which key, and why. */
  inserted?: { by: string; key: CompanionKey; because: string };
}

/** Whether the board's pins work a part: those of the list, and the transistors that stand in a load's wire. */
export const isWorked = (i: Instance) => !i.inserted || i.inserted.key === "driver";

/** Whether pulses at its pin make it weaker and stronger: a single light, and a load switch that prefers a pin with pulses. */
export const canDim = (part: Part): boolean => {
  const needs = part.pins.flatMap((p) => p.need ?? []);
  return (
    needs.length === 1 &&
    needs[0]!.kind === "digital-out" &&
    (part.bringup?.driver === "led" || (needs[0]!.prefer ?? []).includes("pwm"))
  );
};
/** Whether a rule tells a part how bright it is, or how strong. */
export const isDimmed = (netlist: { expanded: Pick<Expanded, "dimmed"> }, i: Instance): boolean =>
  !i.inserted && netlist.expanded.dimmed.has(i.ref) && canDim(i.part);

/** A physical wire or cable of the expanded circuit. */
export interface Wire {
  from: End;
  to: End;
  locked: boolean;
  cable: boolean;
  inserted: boolean;
  because?: string;
}

export interface Expanded {
  project: Project;
  instances: Map<string, Instance>;
  wires: Wire[];
  /** For a pin that has something in series: the terminal that faces the rest of the circuit. */
  outer: Map<string, string>;
  /** Pins behind a buffer: a pull for them stands before it, where it decides. */
  shifted: Set<string>;
  /** `REF.PIN` of contacts that use the host chip's own pull-up. */
  internalPulls: Set<string>;
  /** Lights and load switches that a rule tells how much: their pin has to make pulses. */
  dimmed: ReadonlySet<string>;
  /** Companion values that this version can't place; they are reported, never silently dropped. */
  unplaced: { ref: string; key: CompanionKey }[];
  hosts: string[];
}

interface Work extends Expanded {
  catalogue: Catalogue;
  /** Links of the project by the pin they touch are re-attached to this terminal at the end. */
  extra: Wire[];
}

const LETTER: Partial<Record<CompanionKey, string>> = {
  seriesResistor: "R",
  pullUp: "RU",
  pullDown: "RD",
  decoupling: "C",
  bulkCapacitor: "C",
  shifter: "U",
  driver: "Q",
  flyback: "D",
  filter: "RF",
  termination: "RT",
};

function freshRef(work: Work, letters: string, ref: string): string {
  const base = `${letters}${ref}`;
  if (!work.instances.has(base)) return base;
  for (let n = 2; ; n++) if (!work.instances.has(`${base}x${n}`)) return `${base}x${n}`;
}

function insert(
  work: Work,
  parent: Instance,
  key: CompanionKey,
  letters: string,
  partId: string,
  options: Record<string, unknown>,
  because: string,
): Instance | undefined {
  const part = work.catalogue.get(partId) ?? work.project.customParts.find((p) => p.id === partId);
  if (!part) {
    work.unplaced.push({ ref: parent.ref, key });
    return undefined;
  }
  const ref = freshRef(work, letters, parent.ref);
  const instance: Instance = {
    ref,
    part: withOptions(part, options),
    vars: optionVars(part, options),
    reading: readingOf(part),
    label: `${part.name} of ${parent.label}`,
    host: parent.host,
    inserted: { by: parent.ref, key, because },
  };
  work.instances.set(ref, instance);
  return instance;
}

const wire = (work: Work, from: string, to: string, because: string) =>
  work.extra.push({ from: splitEnd(from), to: splitEnd(to), locked: false, cable: false, inserted: true, because });

const outerOf = (work: Work, end: string) => work.outer.get(end) ?? end;
const firstPin = (part: Part, test: (p: Part["pins"][number]) => boolean) => part.pins.find(test)?.label;
const supplyPin = (part: Part) => firstPin(part, (p) => p.role === "supply-in" || p.role === "supply-io");
const groundPin = (part: Part) => firstPin(part, (p) => p.role === "ground");

/** The pin of a host that carries its logic voltage, where pull-ups and contacts go. */
export function logicSupplyPin(host: Part): string | undefined {
  return firstPin(host, (p) => p.role.startsWith("supply-") && p.supply === host.board?.logicSupply);
}

/** A USB source has one socket: with the board's cable in it, no bare lead is left to wire to. */
export const isPlugged = (i: Instance, project: Project): boolean =>
  i.part.pins.some((p) => {
    const end = `${i.ref}.${p.label}`;
    return p.role === "cable" && project.links.some((l) => l.from === end || l.to === end);
  });

/** The companion rule's pins, or the one that the value names, or the one that the part's shape leaves no doubt about. */
function companionPin(instance: Instance, key: CompanionKey, value: CompanionValue): string[] {
  if (typeof value === "object" && value?.pins)
    return value.pins.flatMap((label) => findPin(instance.part, label)?.label ?? []);
  const named = typeof value === "object" && value?.pin;
  if (named) {
    const pin = findPin(instance.part, named);
    return pin ? [pin.label] : [];
  }
  const rules = instance.part.companions;
  // A pull to the other rail stands at the same pin.
  const rule =
    rules.find((c) => c.key === key) ?? (key === "pullDown" ? rules.find((c) => c.key === "pullUp") : undefined);
  if (rule) return [rule.pin, ...(rule.also ?? [])];
  const i2c = instance.part.groups.find((g) => g.kind === "i2c");
  if (key === "pullUp" && i2c) return Object.values(i2c.pins);
  const io = key === "divider" ? "out" : "in";
  const needs = instance.part.pins.filter((p) => p.need);
  const fitting = needs.filter((p) => p.io === io);
  const list = fitting.length ? fitting : needs;
  return list.length === 1 || key === "divider" || key === "shifter" ? list.slice(0, 1).map((p) => p.label) : [];
}

type Placer = (work: Work, at: Instance, key: CompanionKey, value: Exclude<CompanionValue, null>) => boolean;

const seriesResistor: Placer = (work, at, key, value) => {
  if (value === "internal" || typeof value.ohm !== "number") return false;
  const rule = at.part.companions.find((c) => c.key === key);
  const single = !value.pin && !value.pins && !rule?.also;
  const cathode =
    single && rule?.compute === "led-series" && houseRule(work.project, "ledResistorSide") === "cathode" && rule.to;
  const pins = cathode ? [cathode] : companionPin(at, key, value);
  if (!pins.length) return false;
  const because = rule?.because ?? "a resistor in series with this pin";
  for (const pin of pins) {
    const r = insert(work, at, key, "R", value.part ?? "discrete/resistor", { resistance_ohm: value.ohm }, because);
    if (!r) return true;
    const end = `${at.ref}.${pin}`;
    wire(work, `${r.ref}.2`, outerOf(work, end), because);
    work.outer.set(end, `${r.ref}.1`);
  }
  return true;
};

const divider: Placer = (work, at, key, value) => {
  if (value === "internal" || !Array.isArray(value.ohm)) return false;
  const pins = companionPin(at, key, value);
  const ground = groundPin(at.part);
  if (!pins.length || !ground) return false;
  const [top_ohm, low_ohm] = value.ohm;
  for (const pin of pins) {
    const because = `${at.ref}.${pin} gives more volts than the board's pin takes: two resistors divide it`;
    const half = (letters: string, resistance_ohm: number) =>
      insert(work, at, key, letters, "discrete/resistor", { resistance_ohm, tolerance: 0.05 }, because);
    const [top, low] = [half("RA", top_ohm), half("RB", low_ohm)];
    if (!top || !low) return true;
    const end = `${at.ref}.${pin}`;
    wire(work, `${top.ref}.1`, outerOf(work, end), because);
    wire(work, `${top.ref}.2`, `${low.ref}.1`, because);
    wire(work, `${low.ref}.2`, `${at.ref}.${ground}`, because);
    work.outer.set(end, `${top.ref}.2`);
  }
  return true;
};

const shifter: Placer = (work, at, key, value) => {
  if (value === "internal" || !value.part) return false;
  const [pin] = companionPin(at, key, value);
  const supply = supplyPin(at.part);
  const ground = groundPin(at.part);
  if (!pin || !supply || !ground) return false;
  const because = `lifts the board's signal to the level that ${at.ref}.${pin} needs`;
  const u = insert(work, at, key, "U", value.part, {}, because);
  const channel = u?.part.channels[0];
  if (!u || !channel) return u === undefined;
  const end = `${at.ref}.${pin}`;
  wire(work, `${u.ref}.${groundPin(u.part)}`, `${at.ref}.${ground}`, "the buffer shares the part's ground");
  wire(
    work,
    `${u.ref}.${supplyPin(u.part)}`,
    `${at.ref}.${supply}`,
    "the buffer runs from the part's supply, so its output has that level",
  );
  for (const p of u.part.pins)
    if (p.hook === "ground") wire(work, `${u.ref}.${p.label}`, `${u.ref}.${groundPin(u.part)}`, p.says ?? "to ground");
  wire(work, `${u.ref}.${channel.out}`, outerOf(work, end), because);
  work.outer.set(end, `${u.ref}.${channel.in}`);
  work.shifted.add(end);
  for (const rule of u.part.companions) placeAcross(work, u, rule.key, { F: Number(rule.F) });
  return true;
};

const pull =
  (up: boolean): Placer =>
  (work, at, key, value) => {
    const pins = companionPin(at, up ? "pullUp" : "pullDown", value);
    // A bare chip's own pulls go to its own supply.
    const host = at.part.board ? at : at.host ? work.instances.get(at.host) : undefined;
    if (!pins.length || !host) return false;
    if (value === "internal") {
      for (const pin of pins) work.internalPulls.add(`${at.ref}.${pin}`);
      return true;
    }
    const target = up ? logicSupplyPin(host.part) : groundPin(host.part);
    if (typeof value.ohm !== "number" || !target) return false;
    for (const pin of pins) {
      const because = up
        ? "holds the line high when nothing pulls it low"
        : "holds the line low when nothing drives it";
      const r = insert(work, at, key, LETTER[key]!, "discrete/resistor", { resistance_ohm: value.ohm }, because);
      if (!r) return true;
      const end = `${at.ref}.${pin}`;
      wire(work, `${r.ref}.1`, work.shifted.has(end) ? outerOf(work, end) : end, because);
      wire(work, `${r.ref}.2`, `${host.ref}.${target}`, because);
    }
    return true;
  };

const placeAcross: Placer = (work, at, key, value) => {
  if (value === "internal" || typeof value.F !== "number") return false;
  const rule = at.part.companions.find((c) => c.key === key);
  const plus = rule?.pin ?? supplyPin(at.part);
  const minus = rule?.to ?? groundPin(at.part);
  if (!plus || !minus) return false;
  const id = value.part ?? (value.F >= 1e-6 ? "discrete/electrolytic" : "discrete/capacitor");
  const because = rule?.because ?? "a capacitor right at the part's supply takes sudden loads";
  const c = insert(work, at, key, "C", id, { capacitance_uF: Number((value.F * 1e6).toPrecision(6)) }, because);
  if (!c) return true;
  wire(work, `${c.ref}.${c.part.pins[0]!.label}`, `${at.ref}.${plus}`, because);
  wire(work, `${c.ref}.${c.part.pins[1]!.label}`, `${at.ref}.${minus}`, because);
  return true;
};

/** Where a pin's own wires lead: the roles of the pins at their far ends, as the project links them. */
const farRoles = (work: Work, end: string) =>
  work.project.links.flatMap((l) => {
    const far = l.from === end ? l.to : l.to === end ? l.from : null;
    const e = far && splitEnd(far);
    const part = e && work.instances.get(e.ref)?.part;
    const pin = part && findPin(part, e.pin);
    return pin ? [pin] : [];
  });

/**
 * A diode across a coil or motor, against the supply: cathode where the plus comes in, anode at the switched side. Which
 * is which follows from the wires; where they leave it open, the part's first pin is the plus.
 */
const flyback: Placer = (work, at, key, value) => {
  if (value === "internal") return false;
  const load = at.part.elements.find((e) => e.kind === "load");
  if (!load || !("a" in load)) return false;
  const fed = (pin: string) => farRoles(work, `${at.ref}.${pin}`).some((p) => p.role.startsWith("supply-"));
  const [plus, minus] = !fed(load.a) && fed(load.b) ? [load.b, load.a] : [load.a, load.b];
  const because = "lets the coil's current die away in a circle when the switch opens, instead of killing the switch";
  const d = insert(work, at, key, "D", value.part ?? "discrete/diode-1n4007", {}, because);
  if (!d) return true;
  wire(work, `${d.ref}.K`, `${at.ref}.${plus}`, because);
  wire(work, `${d.ref}.A`, `${at.ref}.${minus}`, because);
  return true;
};

/** A low-side switch in the wire of a load: the wire's far end then drives the gate or base instead of the load. */
const driver: Placer = (work, at, key, value) => {
  if (value === "internal") return false;
  const load = at.part.elements.find((e) => e.kind === "load");
  const host = at.host ? work.instances.get(at.host) : undefined;
  const ground = host && groundPin(host.part);
  if (!load || !("a" in load) || !host || !ground) return false;
  const byPin = [load.a, load.b].find((pin) => farRoles(work, `${at.ref}.${pin}`).some((p) => p.offers?.length));
  const pin = value.pin ? findPin(at.part, value.pin)?.label : (byPin ?? load.b);
  const because = "the pin can't carry this load: a transistor switches it, the pin only switches the transistor";
  const q = insert(work, at, key, "Q", value.part ?? "discrete/nmos-irlz44n", {}, because);
  const t = q?.part.elements.find((e) => e.kind === "bjt" || e.kind === "fet");
  if (!q || !pin) return true;
  if (!t || (t.kind !== "bjt" && t.kind !== "fet")) return false;
  const [top, low, control] = t.kind === "bjt" ? [t.c, t.e, t.b] : [t.d, t.s, t.g];
  const ohm = typeof value.ohm === "number" ? value.ohm : Array.isArray(value.ohm) ? value.ohm[0] : 220;
  const r = insert(work, at, key, "RQ", "discrete/resistor", { resistance_ohm: ohm }, because);
  wire(work, `${q.ref}.${top}`, outerOf(work, `${at.ref}.${pin}`), because);
  wire(work, `${q.ref}.${low}`, `${host.ref}.${ground}`, "the switched current returns to ground");
  if (!r) return true;
  wire(work, `${r.ref}.2`, `${q.ref}.${control}`, "limits what the pin has to give");
  if (t.kind === "fet") {
    const hold = "keeps the load off while the board starts and its pins are still inputs";
    const down = insert(
      work,
      at,
      key,
      "RG",
      "discrete/resistor",
      { resistance_ohm: Array.isArray(value.ohm) ? value.ohm[1] : 10_000 },
      hold,
    );
    if (down) {
      wire(work, `${down.ref}.1`, `${q.ref}.${control}`, hold);
      wire(work, `${down.ref}.2`, `${host.ref}.${ground}`, hold);
    }
  }
  work.outer.set(`${at.ref}.${pin}`, `${r.ref}.1`);
  return true;
};

/** A resistor in the signal's wire and a capacitor behind it, towards the board: keeps bounce and noise out. */
const filter: Placer = (work, at, key, value) => {
  if (value === "internal" || typeof value.F !== "number") return false;
  const [pin] = companionPin(at, key, value);
  const host = at.part.board ? at : at.host ? work.instances.get(at.host) : undefined;
  const ground = groundPin(at.part);
  const to = ground ? `${at.ref}.${ground}` : host && `${host.ref}.${groundPin(host.part)}`;
  if (!pin || !to) return false;
  const because = "smooths bounce and noise before the board's pin sees it";
  const end = `${at.ref}.${pin}`;
  if (typeof value.ohm === "number") {
    const r = insert(work, at, key, "RF", "discrete/resistor", { resistance_ohm: value.ohm }, because);
    if (!r) return true;
    wire(work, `${r.ref}.2`, outerOf(work, end), because);
    work.outer.set(end, `${r.ref}.1`);
  }
  const uF = Number((value.F * 1e6).toPrecision(6));
  const c = insert(work, at, key, "CF", value.part ?? "discrete/capacitor", { capacitance_uF: uF }, because);
  if (!c) return true;
  wire(work, `${c.ref}.${c.part.pins[0]!.label}`, outerOf(work, end), because);
  wire(work, `${c.ref}.${c.part.pins[1]!.label}`, to, because);
  return true;
};

/** The two lines of a differential pair, by the names that transceivers print. */
export const PAIRS: readonly (readonly [string, string])[] = [
  ["CANH", "CANL"],
  ["A", "B"],
];

/** A resistor across the two lines of a differential pair. */
const termination: Placer = (work, at, key, value) => {
  if (value === "internal" || typeof value.ohm !== "number") return false;
  const rule = at.part.companions.find((c) => c.key === key);
  const pair = rule?.to
    ? ([rule.pin, rule.to] as const)
    : PAIRS.find((p) => p.every((label) => findPin(at.part, label)?.role === "passive"));
  if (!pair) return false;
  const because = "the end of a long pair needs its own resistance, or the signal comes back as an echo";
  const r = insert(work, at, key, "RT", value.part ?? "discrete/resistor", { resistance_ohm: value.ohm }, because);
  if (!r) return true;
  wire(work, `${r.ref}.1`, `${at.ref}.${pair[0]}`, because);
  wire(work, `${r.ref}.2`, `${at.ref}.${pair[1]}`, because);
  return true;
};

/** In this order, so that what stands closest to the part is placed first. */
const PLACERS: [CompanionKey, Placer][] = [
  ["seriesResistor", seriesResistor],
  ["divider", divider],
  ["shifter", shifter],
  ["pullUp", pull(true)],
  ["pullDown", pull(false)],
  ["bulkCapacitor", placeAcross],
  ["decoupling", placeAcross],
  ["driver", driver],
  ["flyback", flyback],
  ["filter", filter],
  ["termination", termination],
];

/** The terminal that faces the rest of the circuit for an endpoint: the pin itself, or its series part's far side. */
export const outerTerminal = (e: Expanded, end: string) => e.outer.get(end) ?? end;

/**
 * Turns the project into parts and wires as they will really stand: options applied, the companions that the project
 * names inserted, links moved to the outer side of series parts. Adds nothing that the project does not say.
 */
export function expand(project: Project, catalogue: Catalogue): Expanded {
  const partOf = partLookup(project, catalogue);
  const first = defaultHost(project, partOf);
  const work: Work = {
    project,
    catalogue,
    instances: new Map(),
    wires: [],
    extra: [],
    outer: new Map(),
    shifted: new Set(),
    internalPulls: new Set(),
    dimmed: toldHowMuch(project.rules ?? []),
    unplaced: [],
    hosts: project.parts.filter((p) => partOf(p.ref)?.board).map((p) => p.ref),
  };
  for (const p of project.parts) {
    const part = partOf(p.ref);
    if (!part) continue;
    const host = p.host ?? (p.ref === first || part.board ? undefined : first);
    work.instances.set(p.ref, {
      ref: p.ref,
      part,
      vars: optionVars(part, p.options ?? {}),
      reading: readingOf(part, p.print, p.options),
      label: p.label ?? p.ref,
      ...(host && { host }),
      ...(p.sleep && { sleep: p.sleep }),
    });
  }
  for (const inst of work.instances.values()) inst.part = facing(project, work.instances, inst);
  for (const p of project.parts) {
    const at = work.instances.get(p.ref);
    if (!at || !p.companions) continue;
    for (const [key, place] of PLACERS) {
      const value = p.companions[key];
      if (value === undefined || value === null) continue;
      if (!place(work, at, key, value)) work.unplaced.push({ ref: p.ref, key });
    }
  }
  for (const l of project.links) {
    const from = splitEnd(outerTerminal(work, l.from));
    const to = splitEnd(outerTerminal(work, l.to));
    const role = (e: End) => {
      const part = work.instances.get(e.ref)?.part;
      return part && findPin(part, e.pin)?.role;
    };
    const cable = role(from) === "cable" && role(to) === "cable";
    work.wires.push({ from, to, locked: l.locked ?? false, cable, inserted: false });
  }
  work.wires.push(...work.extra);
  return work;
}

export { joinEnd };
