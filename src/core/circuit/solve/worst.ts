import { solveTransposed } from "./linear";
import { at, type Corner, type Element, type Spread } from "./network";
import { drawn, solveAt, type Point, type Prepared } from "./point";

/** What is asked about a network: the volts of a node (against so many times another), or the amperes of an element. */
export type Quantity =
  | { of: "volts"; node: string; minus?: string; times?: number }
  | { of: "amps"; element: Element }
  | { of: "base"; element: Element };

const valueOf = (q: Quantity, p: Point): number =>
  q.of === "volts"
    ? p.volts(q.node) - (q.minus === undefined ? 0 : (q.times ?? 1) * p.volts(q.minus))
    : q.of === "amps"
      ? p.amps(q.element)
      : p.base(q.element);

const spreads = (e: Element): Spread[] =>
  e.kind === "resistor" ? [e.ohm] : e.kind === "diode" ? [e.Vf] : e.kind === "bjt" ? [e.Vbe, e.gain] : [e.Vth];

/** The elements that each knob turns, held nodes included: a rail's knob turns everything that hangs on it. */
function turned(p: Prepared, q: Quantity): Map<string, Element[]> {
  const out = new Map<string, Element[]>();
  const put = (knob: string, e: Element) => {
    if (!knob) return;
    const list = out.get(knob);
    if (!list) out.set(knob, [e]);
    else if (list.at(-1) !== e) list.push(e);
  };
  for (const e of p.net.elements) {
    for (const s of spreads(e)) if (s.min !== s.max) put(s.knob, e);
    for (const n of e.kind === "bjt" ? [e.b, e.c, e.e] : e.kind === "fet" ? [e.g, e.d, e.s] : [e.a, e.b]) {
      const s = p.net.held.get(n);
      if (s && s.min !== s.max) put(s.knob, e);
    }
  }
  // A rail that is only compared with turns nothing in the network, but it moves.
  const beside = q.of === "volts" && q.minus !== undefined ? p.net.held.get(q.minus) : undefined;
  if (beside && beside.knob && !out.has(beside.knob)) out.set(beside.knob, []);
  return out;
}

const STEP = 1e-4;
const MOST_ROUNDS = 6;

/**
 * How a quantity follows each knob, per unit of the knob, by one adjoint solve: λ of Aᵀ·λ = ∂q/∂v, then −λ·∂(currents)/∂knob.
 */
function slopes(p: Prepared, q: Quantity, here: Point, corner: Corner, knobs: Map<string, Element[]>) {
  const { index, net } = p;
  const n = index.size;
  const piece = (e: Element) => here.pieces[net.elements.indexOf(e)]!;
  const g = new Float64Array(n);
  const measured = q.of === "volts" ? null : q.element;
  /** The quantity itself at voltages moved by a little, for the measured element's own derivative. */
  const direct = (volts: (node: string) => number, c: Corner): number => {
    if (q.of === "volts") return volts(q.node) - (q.minus === undefined ? 0 : (q.times ?? 1) * volts(q.minus));
    const e = measured!;
    const end = q.of === "base" && e.kind === "bjt" ? e.b : e.kind === "bjt" ? e.c : e.kind === "fet" ? e.d : e.a;
    let sum = 0;
    drawn(e, piece(e), c, volts, (node, I) => {
      if (node === end) sum += I;
    });
    return sum;
  };
  const base = direct(here.volts, corner);
  for (const [node, i] of index) g[i] = (direct((x) => here.volts(x) + (x === node ? STEP : 0), corner) - base) / STEP;
  const lambda = here.factored ? solveTransposed(here.factored, g) : g;
  const out = new Map<string, number>();
  for (const [knob, list] of knobs) {
    const now = corner.get(knob) ?? 0;
    // Inwards at an end, where the spread has no further.
    const step = now > 0 ? -STEP : STEP;
    const moved: Corner = new Map(corner).set(knob, now + step);
    const shifted = (node: string) => {
      const s = net.held.get(node);
      return s && s.knob === knob ? at(s, moved) : here.volts(node);
    };
    let sum = direct(shifted, moved) - base;
    for (const e of list) {
      const add = (sign: number) => (node: string, I: number) => {
        const i = index.get(node);
        if (i !== undefined) sum -= sign * lambda[i]! * I;
      };
      drawn(e, piece(e), moved, shifted, add(1));
      drawn(e, piece(e), corner, here.volts, add(-1));
    }
    out.set(knob, sum / step);
  }
  return out;
}

/**
 * The end of a quantity's range over all corners of the tolerances: each knob to the side where the quantity grows (or
 * shrinks), solved again until the sides stand. Exact where the quantity is monotone in every knob, as in networks of
 * resistors and sources; the best corner met is kept elsewhere.
 */
export function worst(p: Prepared, q: Quantity, want: "min" | "max"): { value: number; corner: Corner; point: Point } {
  const sign = want === "max" ? 1 : -1;
  const knobs = turned(p, q);
  let corner: Corner = new Map();
  let point = solveAt(p, corner);
  let best = { value: valueOf(q, point), corner, point };
  if (!knobs.size) return best;
  const seen = new Set<string>();
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const s = slopes(p, q, point, corner, knobs);
    const next = new Map<string, number>();
    for (const [knob, slope] of s) {
      const side = Math.sign(slope * sign) || (corner.get(knob) ?? 0);
      if (side) next.set(knob, side);
    }
    const key = [...next].map(([k, v]) => k + v).join();
    if (seen.has(key)) break;
    seen.add(key);
    corner = next;
    point = solveAt(p, corner, point.pieces);
    const value = valueOf(q, point);
    if ((value - best.value) * sign > 0 || Number.isNaN(best.value)) best = { value, corner, point };
  }
  return best;
}

/**
 * A quantity in `count` builds whose values were drawn evenly from their tolerances; `roll` gives numbers from 0 to 1. What
 * hangs on one knob is drawn once a build.
 */
export function drawBuilds(p: Prepared, q: Quantity, count: number, roll: () => number): number[] {
  const knobs = [...turned(p, q).keys()];
  return Array.from({ length: count }, () =>
    valueOf(q, solveAt(p, new Map(knobs.map((k) => [k, 2 * roll() - 1] as const)))),
  );
}

/** Typical value and both ends of a quantity. */
export function range(p: Prepared, q: Quantity): { min: number; typ: number; max: number } {
  return { min: worst(p, q, "min").value, typ: valueOf(q, solveAt(p, new Map())), max: worst(p, q, "max").value };
}
