import type { Problem } from "./problem";

const name = (n: number, c: number) => `x_${n}_${c}`;

/**
 * The same problem in CPLEX LP format: one binary x for each (need, choice); z says that a bus line sits on a pin, s that
 * a part uses a header side, b that a group sits on a bus. The objective is in the units of `cost`; the constant for each
 * part's first side is carried by the fixed variable `one`.
 */
export function writeLp(p: Problem): string {
  const objective: string[] = [];
  const rows: string[] = [];
  const binaries: string[] = [];
  const row = (text: string) => rows.push(` r${rows.length + 1}: ${text}`);
  const sides = [...new Set(p.pins.map((x) => x.header))];
  const byPart = new Map<string, number[]>();
  p.needs.forEach((n, i) => byPart.set(n.ref, [...(byPart.get(n.ref) ?? []), i]));
  p.needs.forEach((n, i) => {
    n.choices.forEach((c, k) => {
      binaries.push(name(i, k));
      if (c.cost) objective.push(`+ ${c.cost} ${name(i, k)}`);
    });
    row(n.choices.length ? `${n.choices.map((_, k) => name(i, k)).join(" + ")} = 1` : "0 one = 1");
  });
  // Bus lines: all needs of one line share its one pin.
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
      const z = `z_${l}_${pin}`;
      binaries.push(z);
      zs.push(z);
      zAt.set(pin, [...(zAt.get(pin) ?? []), z]);
      for (const x of xs) row(`${x} - ${z} <= 0`);
    }
    row(`${zs.join(" + ")} <= 1`);
  });
  p.pins.forEach((_, pin) => {
    const xs = p.needs.flatMap((n, i) =>
      n.share ? [] : n.choices.flatMap((c, k) => (c.pin === pin ? [name(i, k)] : [])),
    );
    const all = [...xs, ...(zAt.get(pin) ?? [])];
    if (all.length > 1) row(`${all.join(" + ")} <= 1`);
  });
  // One bus instance for a group; two groups that clash never on the same one.
  const buses = [...new Set(p.needs.flatMap((n) => n.choices.map((c) => c.bus)).filter((b) => b !== null))];
  for (const g of p.groups) {
    const members = p.needs.map((n, i) => ({ n, i })).filter(({ n }) => n.group === g.id && n.share);
    if (!members.length) continue;
    const mine = buses.filter((b) => members[0]!.n.choices.some((c) => c.bus === b));
    for (const b of buses) {
      const v = `b_${g.id}_${buses.indexOf(b)}`;
      if (mine.includes(b)) binaries.push(v);
      for (const { n, i } of members) {
        const xs = n.choices.flatMap((c, k) => (c.bus === b ? [name(i, k)] : []));
        if (mine.includes(b)) row(`${xs.length ? xs.join(" + ") : "0 one"} - ${v} = 0`);
        else if (xs.length) row(`${xs.join(" + ")} = 0`);
      }
    }
  }
  for (const [a, b] of p.clashes)
    buses.forEach((_, k) => {
      const [va, vb] = [`b_${a}_${k}`, `b_${b}_${k}`];
      if (binaries.includes(va) && binaries.includes(vb)) row(`${va} + ${vb} <= 1`);
    });
  let sidesForFree = 0;
  for (const [ref, needs] of byPart) {
    if (needs.length < 2) continue;
    sides.forEach((side, k) => {
      const s = `s_${ref}_${k}`;
      binaries.push(s);
      objective.push(`+ ${p.sideCost} ${s}`);
      for (const i of needs)
        p.needs[i]!.choices.forEach((c, j) => {
          if (p.pins[c.pin]!.header === side) row(`${name(i, j)} - ${s} <= 0`);
        });
    });
    sidesForFree += p.sideCost;
  }
  if (sidesForFree) objective.push(`- ${sidesForFree} one`);
  row("one = 1");
  return [
    `\\ pins of ${p.host}: ${p.needs.map((n, i) => `x_${i} = ${n.id}`).join(", ")}`.slice(0, 500),
    "Minimize",
    ` obj: ${objective.length ? objective.join(" ") : "0 one"}`,
    "Subject To",
    ...rows,
    "Binaries",
    ` ${[...binaries, "one"].join(" ")}`,
    "End",
    "",
  ].join("\n");
}
