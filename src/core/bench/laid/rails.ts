import { evaluate, type Triple } from "../../quantity";
import type { Converter } from "../../parts/catalogue";
import { converterOutput } from "../../circuit/power";
import type { Laid } from "./laid";
import type { Metal } from "./metal";

/** Something that gives volts by itself: a source, or a computer behind a plug. */
interface Giver {
  ref: string;
  node: number;
  ground: number;
  V: Triple;
}

/** A part's own way from one of its supplies to another. */
interface Inner {
  ref: string;
  converter: Converter;
  vars: Record<string, number>;
  from: number;
  fromGround: number;
  to: number;
  toGround: number;
}

/** What can feed in a plan; found once. */
export interface Feeding {
  givers: readonly Giver[];
  inner: readonly Inner[];
  /** Ground nodes on which something stands: those of boards and sources. */
  anchors: readonly { node: number; ref: string }[];
}

/** A rail or a ground that is held: its volts, and the ground that they are meant against. */
export interface Held {
  V: Triple;
  domain: number;
}

export interface Rails {
  held: Map<number, Held>;
  /** Sources that are shorted and give nothing. */
  tripped: readonly string[];
}

/** A shunt or fuse lets a supply through, a larger resistor does not. */
const PASSES_OHM = 1;
const ZERO: Triple = { min: 0, typ: 0, max: 0 };
const scaled = (V: Triple, by: number): Triple => ({ min: V.min * by, typ: V.typ * by, max: V.max * by });

export function feedingOf(laid: Laid): Feeding {
  const givers: Giver[] = [];
  const inner: Inner[] = [];
  const anchors: { node: number; ref: string }[] = [];
  const at = (t: string) => laid.place.get(t);
  for (const inst of laid.c.netlist.expanded.instances.values()) {
    const { ref, part, vars } = inst;
    const spread = (t: { min: number | string; typ: number | string; max: number | string }): Triple => ({
      min: evaluate(t.min, vars),
      typ: evaluate(t.typ, vars),
      max: evaluate(t.max, vars),
    });
    let stands = part.board !== undefined;
    for (const [key, s] of Object.entries(part.supplies)) {
      const [node, ground] = [at(`${ref}:${key}`)!, at(`${ref}:ground:${s.domain}`)!];
      if (s.source) {
        givers.push({ ref, node, ground, V: spread(s.source.V) });
        stands = true;
      } else if (!part.board) {
        // A module with a USB plug of its own is fed by the computer that it is plugged into.
        const net = laid.c.netlist.netOf(`${ref}:${key}`);
        const plug = part.pins.find((p) => p.role === "cable" && p.supply === key);
        const linked = laid.wires.some((w) => w.cable && [w.a, w.b].some((e) => e.startsWith(`${ref}.`)));
        if (plug && !linked && net?.V) {
          givers.push({ ref, node, ground, V: net.V });
          stands = true;
        }
      }
    }
    if (stands)
      for (const p of part.pins) {
        const node = p.role === "ground" || p.role === "cable" ? at(`${ref}:ground:${p.domain ?? "gnd"}`) : undefined;
        if (node !== undefined && !anchors.some((a) => a.node === node)) anchors.push({ node, ref });
      }
    for (const converter of part.converters) {
      const [from, to] = [part.supplies[converter.from], part.supplies[converter.to]];
      if (!from || !to) continue;
      inner.push({
        ref,
        converter,
        vars,
        from: at(`${ref}:${converter.from}`)!,
        fromGround: at(`${ref}:ground:${from.domain}`)!,
        to: at(`${ref}:${converter.to}`)!,
        toGround: at(`${ref}:ground:${to.domain}`)!,
      });
    }
  }
  return { givers, inner, anchors };
}

interface Asked {
  metal: Metal;
  dead: ReadonlySet<string>;
  ohm: ReadonlyMap<string, number>;
  stuck: ReadonlyMap<string, boolean>;
  sag?: { ref: string; share: number } | undefined;
}

/** Once through: what is held when these sources give. */
function once(laid: Laid, f: Feeding, asked: Asked, tripped: ReadonlySet<string>) {
  const { metal, dead } = asked;
  const held = new Map<number, Held>();
  const anchored = new Map<number, Set<string>>();
  for (const a of f.anchors) {
    const r = metal.root(a.node);
    anchored.set(r, (anchored.get(r) ?? new Set()).add(a.ref));
  }
  /** Which source a rail hangs on. */
  const top = new Map<number, string>();
  const shorted = new Set<string>();
  const reversed: number[] = [];
  for (const g of f.givers) {
    if (tripped.has(g.ref) || dead.has(g.ref)) continue;
    const [plus, minus] = [metal.root(g.node), metal.root(g.ground)];
    const V = asked.sag?.ref === g.ref ? scaled(g.V, asked.sag.share) : g.V;
    if (plus === minus) shorted.add(g.ref);
    else if (anchored.has(plus)) {
      // Turned round: its plus lies on the others' ground, its minus where they expect the plus.
      const alone = [...(anchored.get(minus) ?? [])].every((ref) => ref === g.ref);
      if (!alone) shorted.add(g.ref);
      else {
        held.set(minus, { V: scaled(V, -1), domain: plus });
        reversed.push(minus);
      }
    } else if (!held.has(plus) || held.get(plus)!.V.typ < V.typ) {
      held.set(plus, { V, domain: minus });
      top.set(plus, g.ref);
    }
  }
  for (const r of anchored.keys()) if (!reversed.includes(r)) held.set(r, { V: ZERO, domain: r });
  const supplies = new Set([...laid.supplyNodes].map((n) => metal.root(n)));
  const loose = laid.elements.flatMap((e) => {
    const closed = asked.stuck.get(e.of.ref) ?? true;
    const ohm = asked.ohm.get(e.of.ref) ?? e.of.ohm ?? Infinity;
    const passes =
      e.of.kind === "diode" || (e.of.kind === "contact" && closed) || (e.of.kind === "resistor" && ohm <= PASSES_OHM);
    const [a, b] = [metal.root(e.a), metal.root(e.b)];
    return passes && a !== b && supplies.has(a) && supplies.has(b) ? [{ e, a, b }] : [];
  });
  for (let grew = true; grew;) {
    grew = false;
    const give = (from: number, to: number, domain: number, V: Triple) => {
      const source = top.get(from)!;
      // Onto a ground: the source is shorted through it.
      if (anchored.has(to)) shorted.add(source);
      else if (!held.has(to)) {
        held.set(to, { V, domain });
        top.set(to, source);
        grew = true;
      }
    };
    for (const c of f.inner) {
      const from = metal.root(c.from);
      const h = held.get(from);
      if (dead.has(c.ref) || !top.has(from) || !h || h.domain !== metal.root(c.fromGround)) continue;
      give(from, metal.root(c.to), metal.root(c.toGround), converterOutput(c.converter, h.V, c.vars));
    }
    for (const { e, a, b } of loose) {
      const ways =
        e.of.kind === "diode"
          ? [[a, b]]
          : [
              [a, b],
              [b, a],
            ];
      for (const [from, to] of ways as [number, number][]) {
        const h = held.get(from);
        if (!h || !top.has(from)) continue;
        const Vf = e.of.kind === "diode" ? e.of.Vf! : ZERO;
        give(from, to, h.domain, { min: h.V.min - Vf.max, typ: h.V.typ - Vf.typ, max: h.V.max - Vf.min });
      }
    }
  }
  return { held, shorted };
}

/** The rails and grounds of a build: a source that is shorted gives nothing, and what hangs on it goes dark. */
export function railsOf(laid: Laid, f: Feeding, asked: Asked): Rails {
  const tripped = new Set<string>();
  for (;;) {
    const { held, shorted } = once(laid, f, asked, tripped);
    const fresh = [...shorted].filter((x) => !tripped.has(x));
    if (!fresh.length) return { held, tripped: [...tripped] };
    for (const x of fresh) tripped.add(x);
  }
}
