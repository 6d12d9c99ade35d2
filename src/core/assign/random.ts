/** Random assignment problems and a brute-force optimum, for tests and benchmarks. Not used by the product. */
import type { Choice, Problem } from "./problem";

/** A small repeatable generator (mulberry32): the same seed gives the same problem on every machine. */
export function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A problem with bus groups (shared lines, address clashes) and single pins on a board with two sides. */
export function randomProblem(seed: number, size: { pins: number; parts: number }): Problem {
  const rnd = seeded(seed);
  const int = (n: number) => Math.floor(rnd() * n);
  const pins = Array.from({ length: size.pins }, (_, i) => ({ label: `P${i}`, header: i < size.pins / 2 ? "L" : "R" }));
  // Every pin may be a line of one of two buses, as on chips with fixed pin roles.
  const busRole = pins.map(() => ({ bus: `i2c${int(2)}`, role: rnd() < 0.5 ? "sda" : "scl" }));
  const p: Problem = { host: "B1", pins, needs: [], groups: [], clashes: [], sideCost: 6 };
  const price = () => (rnd() < 0.5 ? 0 : int(20));
  const choice = (pin: number, bus: string | null): Choice => ({ pin, bus, cost: price(), prices: [] });
  for (let k = 0; k < size.parts; k++) {
    const ref = `M${k + 1}`;
    const isBus = rnd() < 0.5;
    if (isBus) {
      const id = p.groups.length;
      p.groups.push({ id, ref, kind: "i2c", addresses: [`0x${10 + int(3)}`] });
      for (const role of ["sda", "scl"] as const)
        p.needs.push({
          id: `${ref}.${role}`,
          ref,
          need: { kind: "i2c", role },
          share: `i2c.${role}`,
          group: id,
          locked: null,
          present: null,
          choices: busRole.flatMap((b, pin) => (b.role === role ? [choice(pin, b.bus)] : [])),
        });
    }
    const singles = isBus ? int(2) : 1 + int(2);
    for (let i = 0; i < singles; i++)
      p.needs.push({
        id: `${ref}.S${i}`,
        ref,
        need: { kind: "digital-out" },
        share: null,
        group: null,
        locked: null,
        present: null,
        choices: pins.flatMap((_, pin) => (rnd() < 0.6 ? [choice(pin, null)] : [])),
      });
  }
  for (const a of p.groups)
    for (const b of p.groups)
      if (a.id < b.id && a.addresses[0] === b.addresses[0]) p.clashes.push([a.id, b.id, "same address"]);
  return p;
}

/** Least cost over all complete choices, checked rule by rule; null when none is legal. Exponential. */
export function bruteForce(p: Problem): number | null {
  let best: number | null = null;
  const legal = (pick: Choice[]): boolean => {
    const owner = new Map<number, string>();
    const line = new Map<string, number>();
    const bus = new Map<number, string | null>();
    for (const [i, c] of pick.entries()) {
      const n = p.needs[i]!;
      const key = n.share ? `${c.bus}|${n.share}` : n.id;
      if ((owner.get(c.pin) ?? key) !== key) return false;
      owner.set(c.pin, key);
      if (n.share) {
        if ((line.get(key) ?? c.pin) !== c.pin) return false;
        line.set(key, c.pin);
      }
      if (n.group !== null) {
        if (bus.has(n.group) && bus.get(n.group) !== c.bus) return false;
        bus.set(n.group, c.bus);
      }
    }
    return p.clashes.every(([a, b]) => bus.get(a) === undefined || bus.get(a) !== bus.get(b));
  };
  const go = (i: number, pick: Choice[]) => {
    if (!legal(pick)) return;
    if (i === p.needs.length) {
      const sides = new Map<string, Set<string>>();
      pick.forEach((c, k) => {
        const ref = p.needs[k]!.ref;
        sides.set(ref, (sides.get(ref) ?? new Set()).add(p.pins[c.pin]!.header));
      });
      let cost = pick.reduce((s, c) => s + c.cost, 0);
      for (const s of sides.values()) cost += (s.size - 1) * p.sideCost;
      if (best === null || cost < best) best = cost;
      return;
    }
    for (const c of p.needs[i]!.choices) go(i + 1, [...pick, c]);
  };
  go(0, []);
  return best;
}
