import type { Problem } from "./problem";

const name = (n: number, c: number) => `x_${n}_${c}`;

/** Collects rows, objective terms and binaries of one model. */
class Model {
  readonly objective: string[] = [];
  readonly rows: string[] = [];
  readonly binaries: string[] = [];
  row(text: string) {
    this.rows.push(` r${this.rows.length + 1}: ${text}`);
  }
  binary(v: string, cost = 0): string {
    this.binaries.push(v);
    if (cost) this.objective.push(`${cost < 0 ? "-" : "+"} ${Math.abs(cost)} ${v}`);
    return v;
  }
}

type Pick = (test: (c: Problem["needs"][number]["choices"][number], n: number) => boolean) => string[];

/** Every need gets one choice. */
function needRows(p: Problem, m: Model) {
  p.needs.forEach((n, i) => {
    n.choices.forEach((c, k) => m.binary(name(i, k), c.cost));
    m.row(n.choices.length ? `${n.choices.map((_, k) => name(i, k)).join(" + ")} = 1` : "0 one = 1");
  });
}

/** Names of choices, gathered by their need. */
function byNeed(xs: readonly string[]): string[][] {
  const out = new Map<string, string[]>();
  for (const x of xs) {
    const need = x.slice(0, x.lastIndexOf("_"));
    out.set(need, [...(out.get(need) ?? []), x]);
  }
  return [...out.values()];
}

/** A pin serves one need or one bus line; a bus line sits on one pin. */
function pinRows(p: Problem, m: Model) {
  const lines = new Map<string, Map<number, string[]>>();
  p.needs.forEach((n, i) =>
    n.choices.forEach((c, k) => {
      if (!n.share) return;
      const key = `${c.bus}|${n.share}`;
      const pins = lines.get(key) ?? new Map<number, string[]>();
      lines.set(key, pins.set(c.pin, [...(pins.get(c.pin) ?? []), name(i, k)]));
    }),
  );
  const zAt = new Map<number, string[]>();
  [...lines.values()].forEach((pins, l) => {
    const zs: string[] = [];
    for (const [pin, xs] of pins) {
      const z = m.binary(`z_${l}_${pin}`);
      zs.push(z);
      zAt.set(pin, [...(zAt.get(pin) ?? []), z]);
      // One row a need: of its choices one is taken, so their sum is held as tightly as each alone.
      for (const mine of byNeed(xs)) m.row(`${mine.join(" + ")} - ${z} <= 0`);
    }
    m.row(`${zs.join(" + ")} <= 1`);
  });
  p.pins.forEach((_, pin) => {
    const xs = p.needs.flatMap((n, i) =>
      n.share ? [] : n.choices.flatMap((c, k) => (c.pin === pin ? [name(i, k)] : [])),
    );
    const all = [...xs, ...(zAt.get(pin) ?? [])];
    if (all.length > 1) m.row(`${all.join(" + ")} <= 1`);
  });
}

/** One bus instance for a group; groups that clash never on the same one, nor on a channel and the bus that carries it. */
function busRows(p: Problem, m: Model) {
  const buses = [...new Set(p.needs.flatMap((n) => n.choices.map((c) => c.bus)).filter((b) => b !== null))];
  const known = new Set<string>();
  const on = (g: number, b: string) => `b_${g}_${buses.indexOf(b)}`;
  for (const g of p.groups) {
    const members = p.needs.map((n, i) => ({ n, i })).filter(({ n }) => n.group === g.id);
    for (const b of buses) {
      const could = members.some(({ n }) => n.choices.some((c) => c.bus === b));
      if (!could) continue;
      const v = m.binary(on(g.id, b));
      known.add(v);
      for (const { n, i } of members) {
        const xs = n.choices.flatMap((c, k) => (c.bus === b ? [name(i, k)] : []));
        m.row(`${xs.length ? xs.join(" + ") : "0 one"} - ${v} = 0`);
      }
    }
  }
  for (const [a, b] of p.clashes)
    for (const x of buses) {
      if (known.has(on(a, x)) && known.has(on(b, x))) m.row(`${on(a, x)} + ${on(b, x)} <= 1`);
      const carrier = p.under[x];
      if (carrier === undefined) continue;
      for (const [down, up] of [
        [a, b],
        [b, a],
      ] as const)
        for (const y of buses) {
          if (!known.has(on(down, x)) || !known.has(on(up, y)) || !known.has(on(carrier, y))) continue;
          m.row(
            up === carrier
              ? `${on(down, x)} + ${on(up, y)} <= 1`
              : `${on(down, x)} + ${on(up, y)} + ${on(carrier, y)} <= 2`,
          );
        }
    }
}

/** Timers, pin sets, interrupt lines: modes at once, one need a slot, so many needs in all. */
function resourceRows(p: Problem, m: Model, pick: Pick) {
  p.resources.forEach((r, i) => {
    const modes = [
      ...new Set(
        p.needs.flatMap((n) => n.choices.flatMap((c) => c.uses.filter((u) => u.resource === i).map((u) => u.mode))),
      ),
    ];
    const ms = modes.map((mode, k) => {
      const v = m.binary(`m_${i}_${k}`);
      for (const mine of byNeed(pick((c) => c.uses.some((u) => u.resource === i && u.mode === mode))))
        m.row(`${mine.join(" + ")} - ${v} <= 0`);
      return v;
    });
    if (ms.length > r.modes) m.row(`${ms.join(" + ")} <= ${r.modes}`);
    const users = pick((c) => c.uses.some((u) => u.resource === i));
    if (Number.isFinite(r.most) && users.length > r.most) m.row(`${users.join(" + ")} <= ${r.most}`);
    const slots = new Set(
      p.needs.flatMap((n) =>
        n.choices.flatMap((c) => c.uses.flatMap((u) => (u.resource === i && u.slot !== null ? [u.slot] : []))),
      ),
    );
    for (const slot of slots) {
      const xs = pick((c) => c.uses.some((u) => u.resource === i && u.slot === slot));
      if (xs.length > 1) m.row(`${xs.join(" + ")} <= 1`);
    }
  });
}

/** A part pays for every header beyond the first that its wires go to. */
function sideRows(p: Problem, m: Model) {
  const sides = [...new Set(p.pins.map((x) => x.header))];
  const byPart = new Map<string, number[]>();
  p.needs.forEach((n, i) => byPart.set(n.ref, [...(byPart.get(n.ref) ?? []), i]));
  let free = 0;
  for (const [ref, needs] of byPart) {
    if (needs.length < 2 || !p.sideCost) continue;
    sides.forEach((side, k) => {
      const s = m.binary(`s_${ref}_${k}`, p.sideCost);
      for (const i of needs) {
        const there = p.needs[i]!.choices.flatMap((c, j) => (p.pins[c.pin]!.header === side ? [name(i, j)] : []));
        if (there.length) m.row(`${there.join(" + ")} - ${s} <= 0`);
      }
    });
    free += p.sideCost;
  }
  if (free) m.objective.push(`- ${free} one`);
}

/** Lines that like their order choose one row of pins; each line that stands elsewhere pays. */
function orderRows(p: Problem, m: Model) {
  p.orders.forEach((o, i) => {
    if (!o.anchors.length) return;
    const ts = o.anchors.map((_, a) => m.binary(`t_${i}_${a}`));
    m.row(`${ts.join(" + ")} = 1`);
    o.needs.forEach((n, k) => {
      const y = m.binary(`y_${i}_${k}`, p.orderCost);
      o.anchors.forEach((pins, a) => {
        const there = p.needs[n]!.choices.flatMap((c, j) => (c.pin === pins[k] ? [` - ${name(n, j)}`] : []));
        m.row(`${ts[a]}${there.join("")} - ${y} <= 0`);
      });
    });
  });
}

/**
 * The same problem in CPLEX LP format, for any other solver: x chooses, z puts a bus line on a pin, b a group on a bus, m a
 * resource into a mode, s a part on a header side, t the row of pins that lines would like, y a line that is not in it. The
 * objective is in the units of `cost`; the constant for each part's first side is carried by the fixed variable `one`.
 */
export function writeLp(p: Problem): string {
  const m = new Model();
  const pick: Pick = (test) => p.needs.flatMap((n, i) => n.choices.flatMap((c, k) => (test(c, i) ? [name(i, k)] : [])));
  needRows(p, m);
  pinRows(p, m);
  busRows(p, m);
  resourceRows(p, m, pick);
  sideRows(p, m);
  orderRows(p, m);
  m.row("one = 1");
  return [
    `\\ pins of ${p.host}: ${p.needs.map((n, i) => `x_${i} = ${n.id}`).join(", ")}`.slice(0, 500),
    "Minimize",
    ` obj: ${m.objective.length ? m.objective.join(" ") : "0 one"}`,
    "Subject To",
    ...m.rows,
    "Binaries",
    ` ${[...m.binaries, "one"].join(" ")}`,
    "End",
    "",
  ].join("\n");
}

/** The choice of every need in a solution of `writeLp`'s model, from the names of the variables that are 1; null when a need has none. */
export function readLp(p: Problem, ones: readonly string[]): number[] | null {
  const chosen = new Map<number, number>();
  for (const v of ones) {
    const m = /^x_(\d+)_(\d+)$/.exec(v);
    if (m) chosen.set(Number(m[1]), Number(m[2]));
  }
  const out = p.needs.map((_, i) => chosen.get(i) ?? -1);
  return out.every((c, i) => p.needs[i]!.choices[c]) ? out : null;
}
