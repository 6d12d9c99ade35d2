import { busOfPin } from "../../circuit/buses";
import { splitEnd } from "../../project";
import { beside, wiredPins } from "../faults/around";
import type { Fault } from "../faults";
import type { Laid } from "../laid/laid";
import type { State } from "../laid/state";
import type { Works } from "../laid/works";

/** Something that can be asked of a build: with a meter, by the program's lines, or by looking. */
export type Question =
  | { kind: "beep"; a: string; b: string }
  | { kind: "ohm"; a: string; b: string }
  | { kind: "volt"; a: string; b: string }
  | { kind: "part"; ref: string }
  | { kind: "console"; host: string }
  | { kind: "plan"; host: string }
  | { kind: "scan"; host: string; bus: string }
  | { kind: "upload"; host: string }
  | { kind: "sight"; what: Sight };

/** The part that programs bare chips. */
const PROGRAMMER = "module/avr-programmer";

/** What anybody notices without a meter. */
export const SIGHTS = ["resets", "hot"] as const;
export type Sight = (typeof SIGHTS)[number];

/** What was seen: a number from a meter (infinite: no connection), or a word. */
export interface Observation {
  q: Question;
  seen: number | string;
}

/** What a build shows; null: nothing can be said beforehand. */
export type Answer = number | string | null;

export const UNSTEADY = "unsteady";

/** The same question has the same key; a meter's probes can be exchanged. */
export function keyOf(q: Question): string {
  switch (q.kind) {
    case "beep":
    case "ohm":
      return `${q.kind} ${[q.a, q.b].sort().join(" ")}`;
    case "volt":
      return `volt ${q.a} ${q.b}`;
    case "part":
      return `part ${q.ref}`;
    case "scan":
      return `scan ${q.host} ${q.bus}`;
    case "sight":
      return `sight ${q.what}`;
    case "console":
    case "plan":
    case "upload":
      return `${q.kind} ${q.host}`;
  }
}

/** Whether the build is powered while it is asked. */
export const isPowered = (q: Question) => q.kind !== "beep" && q.kind !== "ohm";

/** Whether the bring-up program tells it, or asks a person for it: all of these come at one go. */
export const isTold = (q: Question) => !("a" in q);

/** Effort, against putting two probes somewhere. */
const EFFORT: Record<Question["kind"], number> = {
  beep: 1,
  ohm: 1.3,
  volt: 1.1,
  part: 0.4,
  console: 0.2,
  plan: 0.2,
  scan: 0.2,
  sight: 0.5,
  upload: 0.6,
};
export const effortOf = (q: Question) => EFFORT[q.kind];

/** The places of a question's two points among the terminals; -1 where it has none, or they are not there. */
export interface Ends {
  a: number;
  b: number;
}
export const endsOf = (laid: Laid, q: Question): Ends =>
  "a" in q ? { a: laid.place.get(q.a) ?? -1, b: laid.place.get(q.b) ?? -1 } : { a: -1, b: -1 };

/**
 * What a build shows to a question. `sound`: what a sound build shows to it, where that is known already; `ends`: its points,
 * where they were looked up before.
 */
export function answer(works: Works, s: State, q: Question, sound?: Answer, ends: Ends = endsOf(s.laid, q)): Answer {
  const { a, b } = ends;
  if (sound !== undefined && a >= 0 && b >= 0 && !s.felt(a) && !s.felt(b)) return sound;
  switch (q.kind) {
    case "beep": {
      return a < 0 || b < 0 ? null : s.beeps(a, b) ? "beep" : "open";
    }
    case "ohm": {
      if (a < 0 || b < 0) return null;
      const [x, y] = [s.root(a), s.root(b)];
      if (x === y) return 0;
      const between = s.laid.elements.filter((e) => {
        const [m, n] = [s.root(e.a), s.root(e.b)];
        return e.of.kind === "resistor" && !e.of.internal && ((m === x && n === y) || (m === y && n === x));
      });
      const S = between.reduce((sum, e) => sum + 1 / Math.max(s.ohmOf(e)!, 0.05), 0);
      return S > 0 ? 1 / S : Infinity;
    }
    case "volt": {
      if (a < 0 || b < 0) return null;
      return s.volts(a, b) ?? UNSTEADY;
    }
    case "part": {
      const w = works.of(s, q.ref);
      return w === "unsure" ? null : w;
    }
    case "console":
      return works.console(s, q.host);
    case "plan":
      return works.console(s, q.host) === "silent" ? "silent" : s.change.otherProgram === q.host ? "other" : "same";
    case "scan":
      return scan(works, s, q);
    case "upload":
      return upload(works, s, q.host);
    case "sight":
      if (q.what === "hot") return works.hurts(s) ? "yes" : "no";
      return s.change.sag || s.change.restarts ? "yes" : "no";
  }
}

/** Wires between a programmer and its chip, those of resistors on the way included; and the programmer's pins. */
function programmerWires(works: Works, host: string): { pairs: (readonly [number, number])[]; pins: number[] } {
  const { sound } = works;
  const { laid } = sound;
  const of = (end: string) => laid.pins.get(laid.place.get(end) ?? -1);
  const pins = [...laid.pins].flatMap(([t, p]) => (p.inst.part.id === PROGRAMMER && p.def.role !== "cable" ? [t] : []));
  const way = new Set(pins.map((t) => sound.root(t)));
  const through = new Set<string>();
  for (const e of laid.elements) {
    const [x, y] = [sound.root(e.a), sound.root(e.b)];
    const lies = way.has(x) !== way.has(y) && !sound.held.has(x) && !sound.held.has(y);
    if (e.of.kind === "resistor" && !e.of.internal && lies) {
      through.add(e.of.ref);
      way.add(x);
      way.add(y);
    }
  }
  const concerned = (end: string) => {
    const p = of(end);
    return p !== undefined && (p.ref === host || p.inst.part.id === PROGRAMMER || through.has(p.ref));
  };
  const pairs = laid.wires.flatMap((w) =>
    !w.cable && way.has(sound.root(w.pairs[0]![0])) && (concerned(w.a) || concerned(w.b)) ? [w.pairs[0]!] : [],
  );
  return { pairs, pins };
}

/** What uploading says: by the port of a board, or by the programmer of a bare chip. */
function upload(works: Works, s: State, host: string): Answer {
  if (s.change.upload?.host === host) return s.change.upload.says;
  const { pairs, pins } = programmerWires(works, host);
  if (pairs.length) {
    // Any of its wires that does not lead to where it should, or lies on another one: the chip does not answer.
    const right = pairs.every(([a, b]) => s.root(a) === s.root(b));
    const nets = (x: State) => new Set(pins.map((t) => x.root(t))).size;
    const apart = nets(s) >= nets(works.sound);
    return right && apart && works.console(s, host) !== "silent" ? "ok" : "no answer";
  }
  return works.console(s, host) === "silent" ? "no port" : "ok";
}

/** Addresses that answer on a bus, in order. */
function scan(works: Works, s: State, q: { host: string; bus: string }): Answer {
  if (works.console(s, q.host) === "silent") return "silent";
  const found = s.laid.c.netlist.bindings
    .filter((b) => b.need.kind === "i2c" && b.host === q.host && busOf(s.laid, b.host, b.hostPin) === q.bus)
    .flatMap((b) => {
      const group = s.laid.c.netlist.instance(b.ref)?.part.groups.find((g) => g.kind === "i2c");
      const strapped = s.change.address?.ref === b.ref;
      // A part with another address than planned is there all the same.
      const there = strapped || works.of(s, b.ref) === "works";
      const own = strapped ? s.change.address!.address : group?.address;
      return there && own ? [own, ...(strapped ? [] : (group?.also ?? []))] : [];
    });
  return [...new Set(found.map((x) => Number.parseInt(x, 16)))]
    .sort((a, b) => a - b)
    .map((x) => `0x${x.toString(16)}`)
    .join(",");
}

/** The I2C bus that a pin of a board is on, those in software included. */
export const busOf = (laid: Laid, host: string, pin: string): string | undefined =>
  busOfPin(laid.c, host, pin, "i2c") ?? undefined;

/** Pins at which a rail can be measured, the part's own supply and ground pins. */
function feeds(laid: Laid): Question[] {
  const pin = (ref: string, node: number): string | undefined => {
    for (const [a, b] of laid.joins) {
      const t = a === node ? b : b === node ? a : undefined;
      if (t !== undefined && laid.pins.get(t)?.ref === ref) return laid.terminals[t];
    }
    return undefined;
  };
  return laid.supplies.flatMap((x): Question[] => {
    const [plus, minus] = [pin(x.ref, x.node), pin(x.ref, x.ground)];
    return plus && minus ? [{ kind: "volt", a: plus, b: minus }] : [];
  });
}

/** Lines that something holds while nobody talks: their volts can be told beforehand. */
function held(laid: Laid, sound: State): Question[] {
  const seen = new Set<number>();
  return laid.needs.flatMap((n): Question[] => {
    const r = sound.root(n.pin);
    const inst = laid.pins.get(n.pin)!.inst;
    const ground = inst.part.pins.find((p) => p.role === "ground")?.label;
    const kind = laid.c.netlist.bindings.find((b) => `${b.ref}.${b.pin}` === laid.terminals[n.pin])?.need.kind;
    if (seen.has(r) || !ground || kind !== "i2c") return [];
    seen.add(r);
    const V = sound.volts(n.pin, laid.place.get(`${inst.ref}.${ground}`)!);
    return V === null ? [] : [{ kind: "volt", a: laid.terminals[n.pin]!, b: `${inst.ref}.${ground}` }];
  });
}

/** Every measurement that could tell faults apart, and every line and look. */
export function questionsOf(laid: Laid, works: Works, sound: State, faults: readonly Fault[]): Question[] {
  const out = new Map<string, Question>();
  const put = (q: Question) => {
    if (!("a" in q) || q.a !== q.b) out.set(keyOf(q), q);
  };
  const { netlist } = laid.c;
  const apart = (a: string, b: string) => !sound.beeps(laid.place.get(a)!, laid.place.get(b)!);
  const probe = (t: string) => laid.pins.get(laid.place.get(t) ?? -1)?.def.role !== "cable";
  for (const w of laid.wires) {
    if (!w.cable) put({ kind: "beep", a: w.a, b: w.b });
    else feedsAcross(laid, w.a, w.b).forEach(put);
  }
  for (const inst of netlist.expanded.instances.values())
    for (const a of wiredPins(laid, inst.ref))
      for (const b of beside(laid, a)) if (apart(a, b)) put({ kind: "beep", a, b });
  // Where a wire may be instead.
  for (const f of faults)
    for (const [a, b] of f.change.join ?? [])
      if (laid.place.has(a) && laid.place.has(b) && probe(a) && probe(b) && apart(a, b)) put({ kind: "beep", a, b });
  for (const q of feeds(laid)) {
    put(q);
    if (q.kind === "volt" && apart(q.a, q.b)) put({ kind: "beep", a: q.a, b: q.b });
  }
  held(laid, sound).forEach(put);
  for (const inst of netlist.expanded.instances.values()) {
    const [a, b] = inst.part.pins;
    if (!a || !b || inst.part.pins.length !== 2 || inst.part.elements.length !== 1) continue;
    if (inst.part.elements[0]!.kind === "resistor")
      put({ kind: "ohm", a: `${inst.ref}.${a.label}`, b: `${inst.ref}.${b.label}` });
  }
  for (const w of works.watched) put({ kind: "part", ref: w.ref });
  for (const what of SIGHTS) put({ kind: "sight", what });
  for (const host of works.hosts) {
    put({ kind: "console", host });
    put({ kind: "plan", host });
    put({ kind: "upload", host });
    const buses = netlist.bindings.flatMap((b) =>
      b.need.kind === "i2c" && b.host === host ? (busOf(laid, host, b.hostPin) ?? []) : [],
    );
    for (const bus of new Set(buses)) put({ kind: "scan", host, bus });
  }
  return [...out.values()];
}

/** Through a cable nobody beeps pin by pin: the grounds at its two ends tell whether it is in. */
function feedsAcross(laid: Laid, a: string, b: string): Question[] {
  const ground = (end: string) => {
    const { ref } = splitEnd(end);
    const pin = laid.c.netlist.instance(ref)?.part.pins.find((p) => p.role === "ground");
    return pin && `${ref}.${pin.label}`;
  };
  const [x, y] = [ground(a), ground(b)];
  return x && y ? [{ kind: "beep", a: x, b: y }] : [];
}
