import type { Circuit } from "../../circuit";
import { groundOf, type Net } from "../../circuit/netlist";
import { label } from "../help";
import { splitEnd } from "../../project";
import type { Found, Fix, Rule } from "../types";

/** Sides of one part that a signal crosses without a wire: the grounds of both must not meet. */
const gaps = (c: Circuit): [string, Net, Net][] =>
  [...c.netlist.expanded.instances.values()].flatMap((i): [string, Net, Net][] => {
    const domains = [...new Set(i.part.pins.filter((p) => p.role === "ground").map((p) => p.domain ?? "gnd"))];
    if (domains.length < 2 || !i.part.channels.length) return [];
    const nets = domains.map((d) => c.netlist.netOf(`${i.ref}:ground:${d}`));
    return nets.slice(1).map((n): [string, Net, Net] => [i.ref, nets[0]!, n]);
  });

type Joined = [at: string[], who: string, nodes: (string | undefined)[]];

/** The ground nodes of a part's two sides: `M1:ground:near` and `M1:ground:far`. */
const sidesOf = (c: Circuit, ref: string) =>
  [
    ...new Set(
      c.netlist
        .instance(ref)!
        .part.pins.filter((p) => p.role === "ground")
        .map((p) => p.domain ?? "gnd"),
    ),
  ].map((d) => `${ref}:ground:${d}`);

const groundNode = (c: Circuit, member: string) => {
  const ref = member.split(".")[0]!;
  const domain = groundOf(c.netlist, member)?.nodes.find((n) => n.ref === ref && n.ground)?.ground;
  return domain && `${ref}:ground:${domain}`;
};

/** Wires any one of which, taken out, parts two grounds that must not meet. */
function partFix(c: Circuit, nodes: (string | undefined)[]): Fix[] {
  const [from, to] = nodes;
  if (!from || !to) return [];
  const nodeOf = (end: string) => {
    const { ref, pin } = splitEnd(end);
    const def = c.netlist.instance(ref)?.part.pins.find((p) => p.label === pin || p.aliases?.includes(pin));
    return def && (def.role === "ground" || def.role === "cable") ? `${ref}:ground:${def.domain ?? "gnd"}` : null;
  };
  const wires = c.project.links.flatMap((l) => {
    const [a, b] = [nodeOf(l.from), nodeOf(l.to)];
    return a && b && a !== b ? [{ l, a, b }] : [];
  });
  const meets = (without: (typeof wires)[number]) => {
    const seen = new Set([from]);
    for (const at of seen)
      for (const w of wires)
        if (w !== without)
          for (const [x, y] of [
            [w.a, w.b],
            [w.b, w.a],
          ] as const)
            if (x === at) seen.add(y);
    return seen.has(to);
  };
  // Taking a part's only ground wire would mend nothing.
  const lonely = (node: string, w: (typeof wires)[number]) =>
    !wires.some((x) => x !== w && (x.a === node || x.b === node));
  return wires
    .filter((w) => !/USB/.test(w.l.from) && !meets(w) && !lonely(w.a, w) && !lonely(w.b, w))
    .slice(0, 3)
    .map(({ l }) => ({
      id: `part-${l.from}-${l.to}`,
      label: `Take out the wire from ${l.from} to ${l.to}`,
      edits: [{ type: "removeLink", from: l.from, to: l.to }],
    }));
}

export const powerGroundJoined: Rule = {
  rule: "power.ground-joined",
  says: "Grounds that are meant to stay apart must not meet anywhere: one wire undoes the isolation.",
  check: (c) => {
    const inside = gaps(c)
      .filter(([, a, b]) => a === b)
      .map(([ref]): Joined => [[ref], `both sides of ${label(c, ref)}`, sidesOf(c, ref)]);
    const lists = c.project.isolated;
    // One wire joins every member of both lists: the first pair is told.
    const stated = lists.flatMap((list, i) =>
      lists.slice(i + 1).flatMap((other) =>
        list
          .flatMap((a) =>
            other.flatMap((b): Joined[] => {
              const [x, y] = [groundOf(c.netlist, a), groundOf(c.netlist, b)];
              const nodes = [groundNode(c, a), groundNode(c, b)];
              return x && x === y ? [[[a, b], `${a} and ${b}`, nodes]] : [];
            }),
          )
          .slice(0, 1),
      ),
    );
    return [...inside, ...stated].map(([at, who, nodes]): Found => ({
      rule: "power.ground-joined",
      severity: "stop",
      at,
      message: `The grounds of ${who} are joined, but are meant to be isolated. Find the wire that joins them, or do without isolation.`,
      evidence: { places: at.join(" ") },
      fixes: () => partFix(c, nodes),
    }));
  },
};
