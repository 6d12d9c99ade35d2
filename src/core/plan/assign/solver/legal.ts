import type { Problem } from "../problem";

const popcount = (x: number) => {
  let n = 0;
  for (; x; x &= x - 1) n++;
  return n;
};

/** What the sides and the orders add to a complete choice, in the units of the weights. */
export function extras(p: Problem, choice: readonly number[]): { side: number; order: number } {
  const pinOf = (n: number) => p.needs[n]!.choices[choice[n]!]!.pin;
  const sides = [...new Set(p.pins.map((x) => x.header))];
  const masks = new Map<string, number>();
  p.needs.forEach((need, n) =>
    masks.set(need.ref, (masks.get(need.ref) ?? 0) | (1 << sides.indexOf(p.pins[pinOf(n)]!.header))),
  );
  let side = 0;
  for (const m of masks.values()) side += (popcount(m) - 1) * p.sideCost;
  let order = 0;
  for (const o of p.orders) {
    const out = o.anchors.map((a) => o.needs.filter((n, k) => pinOf(n) !== a[k]).length);
    if (out.length) order += Math.min(...out) * p.orderCost;
  }
  return { side, order };
}

/** The hard rules that a complete choice breaks, in words; empty when it is legal. */
export function broken(p: Problem, choice: readonly number[]): string[] {
  const out: string[] = [];
  const pick = (n: number) => p.needs[n]!.choices[choice[n]!]!;
  const owner = new Map<number, string>();
  const line = new Map<string, number>();
  const bus = new Map<number, string | null>();
  const modes = new Map<number, Set<string>>();
  const users = new Map<number, Set<number>>();
  const slots = new Map<string, number>();
  p.needs.forEach((need, n) => {
    const c = pick(n);
    const key = need.share ? `${c.bus}|${need.share}` : need.id;
    if ((owner.get(c.pin) ?? key) !== key) out.push(`${p.pins[c.pin]!.label} serves ${need.id} and another`);
    owner.set(c.pin, key);
    if (need.share) {
      if ((line.get(key) ?? c.pin) !== c.pin) out.push(`the line ${key} is on two pins`);
      line.set(key, c.pin);
    }
    if (need.group !== null) {
      if (bus.has(need.group) && bus.get(need.group) !== c.bus) out.push(`${need.ref} is on two buses`);
      bus.set(need.group, c.bus);
    }
    for (const u of c.uses) {
      modes.set(u.resource, (modes.get(u.resource) ?? new Set()).add(u.mode));
      users.set(u.resource, (users.get(u.resource) ?? new Set()).add(n));
      if (u.slot === null) continue;
      const s = `${u.resource}|${u.slot}`;
      if (slots.has(s) && slots.get(s) !== n) out.push(`${p.resources[u.resource]!.says}: ${u.slot} is taken twice`);
      slots.set(s, n);
    }
  });
  p.resources.forEach((r, i) => {
    if ((modes.get(i)?.size ?? 0) > r.modes) out.push(`${r.says} would have to be ${[...modes.get(i)!].join(" and ")}`);
    if ((users.get(i)?.size ?? 0) > r.most) out.push(`${r.says} serves ${r.most} at most`);
  });
  for (const [a, b, why] of p.clashes) {
    const [x, y] = [bus.get(a), bus.get(b)];
    if (x == null || y == null) continue;
    const above = (ch: string) => (p.under[ch] === undefined ? undefined : bus.get(p.under[ch]));
    if (x === y || above(x) === y || above(y) === x) out.push(`groups ${a} and ${b} on one bus: ${why}`);
  }
  return out;
}
