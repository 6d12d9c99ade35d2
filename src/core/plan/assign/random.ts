/** Random assignment problems and a brute-force optimum, for tests and benchmarks. Not used by the product. */
import { emptyProblem, type Choice, type Problem, type ProblemNeed, type Use } from "./problem";

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

/** Which of the harder things a random problem contains. */
export interface RandomSize {
  pins: number;
  parts: number;
  /** Timers shared by pins, in modes that don't go together, with one channel twice. */
  timers?: boolean;
  /** Lines that like to stand in order. */
  orders?: boolean;
  /** Controllers whose pins come in sets. */
  remaps?: boolean;
  /** A multiplexer with two channels of its own. */
  channels?: boolean;
}

/** A problem with bus groups (shared lines, address clashes) and single pins on a board with two sides. */
export function randomProblem(seed: number, size: RandomSize): Problem {
  const rnd = seeded(seed);
  const int = (n: number) => Math.floor(rnd() * n);
  const pins = Array.from({ length: size.pins }, (_, i) => ({
    ref: "B1",
    label: `P${i}`,
    header: i < size.pins / 2 ? "L" : "R",
  }));
  // Every pin may be a line of one of two buses, as on chips with fixed pin roles.
  const busRole = pins.map(() => ({ bus: `i2c${int(2)}`, role: rnd() < 0.5 ? "sda" : "scl", set: int(2) }));
  const p: Problem = { ...emptyProblem("B1", [...pins]), sideCost: 6, orderCost: 3 };
  const timers = size.timers ? 2 + int(3) : 0;
  for (let t = 0; t < timers; t++)
    p.resources.push({ id: `t${t}`, says: `timer ${t}`, modes: 1 + int(2), most: 2 + int(4) });
  const remap = ["i2c0", "i2c1"].map((id) => {
    if (!size.remaps) return -1;
    return p.resources.push({ id, says: `pins of ${id}`, modes: 1, most: Infinity }) - 1;
  });
  const timerOf = pins.map(() => ({ timer: int(Math.max(1, timers)), channel: `c${int(3)}` }));
  const price = () => (rnd() < 0.5 ? 0 : int(20));
  const choice = (pin: number, bus: string | null, uses: Use[] = []): Choice => ({
    pin,
    bus,
    cost: price(),
    prices: [],
    uses,
  });
  const add = (id: string, ref: string, choices: Choice[], more: Partial<Problem["needs"][number]> = {}) =>
    p.needs.push({
      id,
      ref,
      need: { kind: "digital-out" },
      share: null,
      group: null,
      locked: null,
      present: null,
      choices,
      ...more,
    });
  const bus = (ref: string, channels: string[]) => {
    const id = p.groups.length;
    p.groups.push({ id, ref, kind: "i2c", addresses: [`0x${10 + int(3)}`] });
    for (const role of ["sda", "scl"] as const)
      add(
        `${ref}.${role}`,
        ref,
        [
          ...busRole.flatMap((b, pin) => {
            const set = remap[Number(b.bus.at(-1))]!;
            return b.role === role
              ? [choice(pin, b.bus, set < 0 ? [] : [{ resource: set, mode: `set ${b.set}`, slot: null }])]
              : [];
          }),
          ...channels.flatMap((c) => {
            const pin = p.pins.findIndex((x) => x.ref === "U1" && x.label === `${c}${role}`);
            return pin < 0 ? [] : [choice(pin, `U1:${c}`)];
          }),
        ],
        { need: { kind: "i2c", role }, share: `i2c.${role}`, group: id },
      );
    return id;
  };
  const channels = size.channels ? ["0", "1"] : [];
  if (size.channels) {
    for (const c of channels)
      for (const role of ["sda", "scl"]) p.pins.push({ ref: "U1", label: `${c}${role}`, header: "U1" });
    const id = bus("U1", []);
    for (const c of channels) p.under[`U1:${c}`] = id;
  }
  for (let k = 0; k < size.parts; k++) {
    const ref = `M${k + 1}`;
    const isBus = rnd() < 0.5;
    if (isBus) bus(ref, channels);
    const singles = isBus ? int(2) : 1 + int(2);
    for (let i = 0; i < singles; i++) {
      const timed = timers > 0 && rnd() < 0.5;
      const mode = `${50 * (1 + int(3))} Hz`;
      add(
        `${ref}.S${i}`,
        ref,
        pins.flatMap((_, pin) => {
          const { timer, channel } = timerOf[pin]!;
          return rnd() < 0.6 ? [choice(pin, null, timed ? [{ resource: timer, mode, slot: channel }] : [])] : [];
        }),
        timed ? { need: { kind: "pwm" } } : {},
      );
    }
    if (size.orders && rnd() < 0.3) {
      const lines = 2 + int(3);
      const first = p.needs.length;
      for (let i = 0; i < lines; i++)
        add(
          `${ref}.D${i}`,
          ref,
          pins.flatMap((_, pin) => (rnd() < 0.7 ? [choice(pin, null)] : [])),
        );
      const anchors: number[][] = [];
      for (const header of ["L", "R"]) {
        const row = pins.flatMap((x, i) => (x.header === header ? [i] : []));
        for (const list of [row, [...row].reverse()])
          for (let s = 0; s + lines <= list.length; s++) anchors.push(list.slice(s, s + lines));
      }
      p.orders.push({
        ref,
        says: "lines in order",
        needs: Array.from({ length: lines }, (_, i) => first + i),
        anchors,
      });
    }
  }
  for (const a of p.groups)
    for (const b of p.groups)
      if (a.id < b.id && a.addresses[0] === b.addresses[0]) p.clashes.push([a.id, b.id, "same address"]);
  return p;
}

/**
 * A problem full of things that are alike: copies of a few kinds of parts, channels that are the same but for their name, prices
 * by bus and header only, groups with a line of their own beside the shared ones. Plans of one price abound.
 */
export function alikeProblem(seed: number, size: { pins: number; parts: number }): Problem {
  const rnd = seeded(seed);
  const int = (n: number) => Math.floor(rnd() * n);
  const board = Array.from({ length: size.pins }, (_, i) => ({
    ref: "B1",
    label: `P${i}`,
    header: i < size.pins / 2 ? "L" : "R",
  }));
  const p: Problem = { ...emptyProblem("B1", [...board]), sideCost: 6, orderCost: 3 };
  const price: Record<string, number> = {
    i2c0: 8 * int(2),
    i2c1: 8 * int(2),
    channel: 8 * int(3),
    L: int(3),
    R: int(3),
  };
  const plain = (pin: number, bus: string | null, cost: number): Choice => ({ pin, bus, cost, prices: [], uses: [] });
  const lineOf = board.map(() => ({ bus: `i2c${int(2)}`, role: rnd() < 0.5 ? "sda" : "scl" }));
  const channels = rnd() < 0.7 ? ["U1:0", "U1:1"] : [];
  for (const c of channels)
    for (const role of ["sda", "scl"]) p.pins.push({ ref: "U1", label: `${c.at(-1)}${role}`, header: "U1" });
  const need = (id: string, choices: Choice[], more: Partial<ProblemNeed> = {}) =>
    p.needs.push({
      id,
      ref: id.split(".")[0]!,
      need: { kind: "digital-out" },
      share: null,
      group: null,
      locked: null,
      present: null,
      choices,
      ...more,
    });
  const member = (ref: string, address: string, on: string[], select: boolean) => {
    const group = p.groups.push({ id: p.groups.length, ref, kind: "i2c", addresses: [address] }) - 1;
    for (const role of ["sda", "scl"])
      need(
        `${ref}.${role}`,
        [
          ...board.flatMap((_, pin) => {
            const { bus, role: mine } = lineOf[pin]!;
            return mine === role ? [plain(pin, bus, price[bus]!)] : [];
          }),
          ...on.map((c) => {
            const pin = p.pins.findIndex((x) => x.ref === "U1" && x.label === `${c.at(-1)}${role}`);
            return plain(pin, c, price.channel!);
          }),
        ],
        { share: `i2c.${role}`, group },
      );
    if (!select) return group;
    const buses = ["i2c0", "i2c1", ...on];
    need(
      `${ref}.cs`,
      board.flatMap((x, pin) => buses.map((bus) => plain(pin, bus, price[x.header]!))),
      { group },
    );
    return group;
  };
  if (channels.length) {
    const id = member("U1", "0x70", [], false);
    for (const c of channels) p.under[c] = id;
  }
  const kinds = Array.from({ length: 2 }, (_, k) => ({
    bus: rnd() < 0.6,
    cs: rnd() < 0.4,
    lines: int(3),
    address: `0x${k}`,
  }));
  for (let k = 0; k < size.parts; k++) {
    const kind = kinds[int(kinds.length)]!;
    const ref = `M${k + 1}`;
    // Alike parts may be told apart by a jumper: then their addresses do not clash.
    if (kind.bus) member(ref, rnd() < 0.5 ? kind.address : `${kind.address}${k}`, channels, kind.cs);
    for (let i = 0; i < (kind.bus ? kind.lines % 2 : 1 + kind.lines); i++)
      need(
        `${ref}.S${i}`,
        board.map((x, pin) => plain(pin, null, price[x.header]!)),
      );
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
    for (const [r, { modes, most }] of p.resources.entries()) {
      const uses = pick.flatMap((c) => c.uses.filter((u) => u.resource === r));
      if (new Set(uses.map((u) => u.mode)).size > modes || uses.length > most) return false;
      const slots = uses.flatMap((u) => (u.slot === null ? [] : [u.slot]));
      if (new Set(slots).size < slots.length) return false;
    }
    return p.clashes.every(([a, b]) => {
      const [x, y] = [bus.get(a), bus.get(b)];
      if (x == null || y == null) return true;
      return x !== y && bus.get(p.under[x] ?? -1) !== y && bus.get(p.under[y] ?? -1) !== x;
    });
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
      for (const o of p.orders)
        cost +=
          Math.min(...o.anchors.map((a) => a.filter((pin, k) => pick[o.needs[k]!]!.pin !== pin).length)) * p.orderCost;
      if (best === null || cost < best) best = cost;
      return;
    }
    for (const c of p.needs[i]!.choices) go(i + 1, [...pick, c]);
  };
  go(0, []);
  return best;
}
