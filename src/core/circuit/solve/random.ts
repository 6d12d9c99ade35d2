import { fixed, type Element, type Network, type Spread } from "./network";

/** A repeatable stream of numbers from 0 to 1 (mulberry32). */
export function dice(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const E6 = [10, 15, 22, 33, 47, 68];

/**
 * A random circuit of resistors, contacts, diodes, lights and transistors between a few rails, for tests against other
 * solvers. `spread`: with tolerances; `most`: elements at most.
 */
export function randomNetwork(seed: number, ask: { spread?: boolean; most?: number } = {}): Network {
  const roll = dice(seed * 7919);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(roll() * list.length)]!;
  const count = 2 + Math.floor(roll() * ((ask.most ?? 9) - 1));
  const vary = (v: number, t: number, knob: string): Spread =>
    ask.spread && roll() < 0.6 ? { min: v * (1 - t), typ: v, max: v * (1 + t), knob } : fixed(v);
  const held = new Map<string, Spread>([["gnd", fixed(0)]]);
  for (const [name, v] of [
    ["v5", 5],
    ["v3", 3.3],
    ["v12", 12],
  ] as const)
    if (name === "v5" || roll() < 0.5) held.set(name, vary(v, 0.05, name));
  const free = Array.from({ length: 1 + Math.floor(roll() * 5) }, (_, i) => `n${i + 1}`);
  const nodes = [...held.keys(), ...free];
  const ends = (k: number) => {
    const out: string[] = [];
    while (out.length < k) {
      const x = pick(nodes);
      if (!out.includes(x)) out.push(x);
    }
    return out as [string, string, string];
  };
  const elements: Element[] = [];
  for (let i = 1; i <= count; i++) {
    const id = `E${i}`;
    const kind = roll();
    if (kind < 0.5) {
      const [a, b] = ends(2);
      elements.push({ kind: "resistor", id, a, b, ohm: vary(pick(E6) * 10 ** (1 + Math.floor(roll() * 4)), 0.05, id) });
    } else if (kind < 0.58) {
      const [a, b] = ends(2);
      // A contact: closed 50 mΩ; an open one is no element.
      elements.push({ kind: "resistor", id, a, b, ohm: fixed(0.05) });
    } else if (kind < 0.8) {
      const [a, b] = ends(2);
      const light = roll() < 0.5;
      elements.push({
        kind: "diode",
        id,
        a,
        b,
        Vf: vary(light ? 2 : 0.7, 0.1, id),
        ohm: light ? 10 : 0.5,
        knee: 0.8,
        knee_ohm: 2000,
      });
    } else if (kind < 0.92) {
      const [b, c, e] = ends(3);
      elements.push({
        kind: "bjt",
        id,
        npn: roll() < 0.7,
        b,
        c,
        e,
        Vbe: vary(0.7, 0.1, id),
        gain: fixed(pick([50, 100, 200])),
        sat_V: 0.2,
      });
    } else {
      const [g, d, s] = ends(3);
      elements.push({ kind: "fet", id, n: roll() < 0.7, g, d, s, Vth: vary(1.5, 0.2, id), ohm: 0.05, full_V: 4 });
    }
  }
  return { elements, held };
}
