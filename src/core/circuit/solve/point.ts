import { factor, solve, type Factored } from "./linear";
import { at, BASE_OHM, LEAK_S, nodesOf, SAT_OHM, type Corner, type Element, type Network } from "./network";

/** Straight piece of an element's behaviour that it works on. */
type Piece = 0 | 1 | 2 | 3;
const OFF = 0;
const ON = 1;
const FULL = 2;
/** A base that conducts while nothing feeds the collector. */
const BARE = 3;

/** The elements and nodes of a network laid out for solving: made once, solved at many corners. */
export interface Prepared {
  net: Network;
  /** Index of each free node; held ones are not in it. */
  index: Map<string, number>;
  /** Free nodes that nothing but leaks holds: their voltage means nothing. */
  floating: Set<string>;
}

/** A solved corner: volts of every node, amperes by element (into its first end; of a transistor: collector or drain). */
export interface Point {
  volts(node: string): number;
  amps(e: Element): number;
  /** Base current of a bipolar transistor. */
  base(e: Element): number;
  /** What the network looks like from a node, ohms: small where something holds it, near infinite where only leaks do. */
  impedance(node: string): number;
  /** False when no set of pieces agreed with itself: the best one found is given. */
  settled: boolean;
  pieces: readonly Piece[];
  factored: Factored | null;
}

/** Above this a node counts as held by nothing but leaks: its voltage is chance. */
export const LOOSE_OHM = 1e9;

/** Lays a network out and finds the nodes that no element joins to anything held. */
export function prepare(net: Network): Prepared {
  const index = new Map<string, number>();
  for (const e of net.elements)
    for (const n of nodesOf(e)) if (!net.held.has(n) && !index.has(n)) index.set(n, index.size);
  const reached = new Set(net.held.keys());
  for (let grew = true; grew;) {
    grew = false;
    for (const e of net.elements) {
      // A gate carries no current and holds nothing.
      const ends = e.kind === "fet" ? [e.d, e.s] : nodesOf(e);
      const known = ends.filter((n) => reached.has(n)).length;
      if (known && known < ends.length) {
        for (const n of ends) reached.add(n);
        grew = true;
      }
    }
  }
  return { net, index, floating: new Set([...index.keys()].filter((n) => !reached.has(n))) };
}

/**
 * What an element does on a piece: current out of each of its nodes as an affine function of their voltages. Written as
 * conductances between node pairs and controlled sources: `stamp(from, to, g, offset, ctl+, ctl−)` is a current from `from`
 * to `to` of g·(v(ctl+) − v(ctl−)) + offset.
 */
type Stamp = (from: string, to: string, g: number, offset: number, plus: string, minus: string) => void;

function stamps(e: Element, piece: Piece, corner: Corner, put: Stamp) {
  switch (e.kind) {
    case "resistor": {
      put(e.a, e.b, 1 / Math.max(at(e.ohm, corner), 1e-6), 0, e.a, e.b);
      return;
    }
    case "diode": {
      const Vf = at(e.Vf, corner);
      if (piece === OFF) put(e.a, e.b, LEAK_S, 0, e.a, e.b);
      else if (piece === ON) put(e.a, e.b, 1 / e.knee_ohm, (-Vf * e.knee) / e.knee_ohm, e.a, e.b);
      else put(e.a, e.b, 1 / e.ohm, -Vf / e.ohm + (Vf * (1 - e.knee)) / e.knee_ohm, e.a, e.b);
      return;
    }
    case "bjt": {
      const [hi, lo] = e.npn ? [e.b, e.e] : [e.e, e.b];
      const [c, em] = e.npn ? [e.c, e.e] : [e.e, e.c];
      const Vbe = at(e.Vbe, corner);
      put(hi, lo, piece === OFF ? LEAK_S : 1 / BASE_OHM, piece === OFF ? 0 : -Vbe / BASE_OHM, hi, lo);
      if (piece === OFF || piece === BARE) put(c, em, LEAK_S, 0, c, em);
      else if (piece === ON) {
        const gm = at(e.gain, corner) / BASE_OHM;
        put(c, em, gm, -gm * Vbe, hi, lo);
      } else put(c, em, 1 / SAT_OHM, -e.sat_V / SAT_OHM, c, em);
      return;
    }
    case "fet": {
      const [hi, lo] = e.n ? [e.g, e.s] : [e.s, e.g];
      const [d, s] = e.n ? [e.d, e.s] : [e.s, e.d];
      const Vth = at(e.Vth, corner);
      if (piece === OFF) put(d, s, LEAK_S, 0, d, s);
      else if (piece === FULL) put(d, s, 1 / e.ohm, 0, d, s);
      else {
        // Full conduction is reached at `full_V` over a drop of a volt: the slope in between.
        const gm = 1 / e.ohm / Math.max(e.full_V - Vth, 0.1);
        put(d, s, gm, -gm * Vth, hi, lo);
      }
      return;
    }
  }
}

/** The piece on which an element belongs at these voltages. */
function pieceAt(e: Element, v: (n: string) => number, corner: Corner): Piece {
  switch (e.kind) {
    case "resistor":
      return OFF;
    case "diode": {
      const across = v(e.a) - v(e.b);
      const Vf = at(e.Vf, corner);
      return across > Vf ? FULL : across > Vf * e.knee ? ON : OFF;
    }
    case "bjt": {
      const drive = e.npn ? v(e.b) - v(e.e) : v(e.e) - v(e.b);
      const Vbe = at(e.Vbe, corner);
      if (drive <= Vbe) return OFF;
      const across = e.npn ? v(e.c) - v(e.e) : v(e.e) - v(e.c);
      if (across <= e.sat_V) return BARE;
      const most = (at(e.gain, corner) * (drive - Vbe)) / BASE_OHM;
      return (across - e.sat_V) / SAT_OHM < most ? FULL : ON;
    }
    case "fet": {
      const drive = e.n ? v(e.g) - v(e.s) : v(e.s) - v(e.g);
      const Vth = at(e.Vth, corner);
      if (drive <= Vth) return OFF;
      const across = e.n ? v(e.d) - v(e.s) : v(e.s) - v(e.d);
      const most = (drive - Vth) / e.ohm / Math.max(e.full_V - Vth, 0.1);
      return across / e.ohm < most ? FULL : ON;
    }
  }
}

const MOST_TURNS = 120;
/** After so many turns of all at once, each step ends where the first element changes its piece: slower, and it arrives. */
const ALL_AT_ONCE = 12;

/** Voltages and currents at one corner of the tolerances. `start`: pieces of a solved neighbour, which are mostly right. */
export function solveAt(p: Prepared, corner: Corner, start?: readonly Piece[]): Point {
  const { net, index } = p;
  const n = index.size;
  const list = net.elements;
  const pieces: Piece[] = start ? [...start] : list.map(() => OFF);
  const held = new Map<string, number>();
  for (const [k, s] of net.held) held.set(k, at(s, corner));
  let x: Float64Array = new Float64Array(n);
  const volts = (node: string) => held.get(node) ?? (index.has(node) ? x[index.get(node)!]! : NaN);
  let factored: Factored | null = null;
  let settled = false;
  let last: Float64Array = new Float64Array(n);
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const A = new Float64Array(n * n);
    const z = new Float64Array(n);
    for (let i = 0; i < n; i++) A[i * n + i] = LEAK_S;
    const put: Stamp = (from, to, g, offset, plus, minus) => {
      for (const [node, sign] of [
        [from, 1],
        [to, -1],
      ] as const) {
        const i = index.get(node);
        if (i === undefined) continue;
        z[i]! -= sign * offset;
        for (const [ctl, s] of [
          [plus, 1],
          [minus, -1],
        ] as const) {
          const j = index.get(ctl);
          if (j !== undefined) A[i * n + j]! += sign * s * g;
          else z[i]! -= sign * s * g * (held.get(ctl) ?? 0);
        }
      }
    };
    list.forEach((e, i) => stamps(e, pieces[i]!, corner, put));
    factored = factor(A, n);
    if (!factored) break;
    x = solve(factored, z);
    const target = x;
    const value = (v: Float64Array) => (node: string) =>
      held.get(node) ?? (index.has(node) ? v[index.get(node)!]! : NaN);
    const wanted = list.map((e) => pieceAt(e, value(target), corner));
    settled = wanted.every((w, i) => w === pieces[i]);
    if (settled) break;
    if (turn < ALL_AT_ONCE) {
      wanted.forEach((w, i) => (pieces[i] = w));
      last = target;
      continue;
    }
    // Along the straight way to the target, only as far as the first element that changes its piece.
    const from = last;
    const along = (t: number) => from.map((v, i) => v + t * (target[i]! - v));
    const now = list.map((e) => pieceAt(e, value(from), corner));
    if (turn === ALL_AT_ONCE) {
      now.forEach((w, i) => (pieces[i] = w));
      continue;
    }
    const differs = (t: number) => {
      const v = value(along(t));
      return list.some((e, i) => pieceAt(e, v, corner) !== pieces[i]);
    };
    let [lo, hi] = [0, 1];
    for (let k = 0; k < 40; k++) {
      const mid = (lo + hi) / 2;
      if (differs(mid)) hi = mid;
      else lo = mid;
    }
    last = along(Math.min(1, hi + 1e-12));
    const v = value(last);
    list.forEach((e, i) => (pieces[i] = pieceAt(e, v, corner)));
  }
  /** Current from the first named end of a stamp to the other, summed over stamps that start or end at `node`. */
  const out = (e: Element, node: string) => {
    let sum = 0;
    stamps(e, pieces[list.indexOf(e)]!, corner, (from, to, g, offset, plus, minus) => {
      const I = g * (volts(plus) - volts(minus)) + offset;
      if (from === node) sum += I;
      if (to === node) sum -= I;
    });
    return sum;
  };
  return {
    volts,
    amps: (e) => out(e, e.kind === "bjt" ? e.c : e.kind === "fet" ? e.d : e.a),
    base: (e) => (e.kind === "bjt" ? out(e, e.b) : 0),
    impedance: (node) => {
      const i = index.get(node);
      if (i === undefined) return 0;
      if (!factored) return Infinity;
      const one = new Float64Array(n);
      one[i] = 1;
      return solve(factored, one)[i]!;
    },
    settled,
    pieces,
    factored,
  };
}

/** Current that elements bring out of a node at given voltages: what the derivative of a knob is taken of. */
export function drawn(
  e: Element,
  piece: Piece,
  corner: Corner,
  volts: (node: string) => number,
  each: (node: string, I: number) => void,
) {
  stamps(e, piece, corner, (from, to, g, offset, plus, minus) => {
    const I = g * (volts(plus) - volts(minus)) + offset;
    each(from, I);
    each(to, -I);
  });
}
