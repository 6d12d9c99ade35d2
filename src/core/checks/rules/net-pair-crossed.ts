import type { Circuit } from "../../circuit";
import type { Net } from "../../circuit/netlist";
import type { Pin } from "../../parts/catalogue";
import { label } from "../help";
import type { Fix, Found, Rule } from "../types";

type Line = NonNullable<Pin["line"]>;
const OTHER: Record<Line, Line> = { A: "B", B: "A", H: "L", L: "H" };
/** Lines of one kind of pair. */
const KIND: Record<Line, "RS-485" | "CAN"> = { A: "RS-485", B: "RS-485", H: "CAN", L: "CAN" };

interface End {
  ref: string;
  pin: string;
  line: Line;
}
const nameOf = (e: End) => `${e.ref}.${e.pin}`;

const linesOn = (net: Net): End[] =>
  net.ends.flatMap((e) => (e.def.line ? [{ ref: e.ref, pin: e.def.label, line: e.def.line }] : []));

/** Both wires of one part change places, where each of its lines has a wire of its own. */
function swapFixes(c: Circuit, at: End): Fix[] {
  const mate = c.netlist.instance(at.ref)?.part.pins.find((p) => p.line === OTHER[at.line]);
  if (!mate) return [];
  const [here, there] = [nameOf(at), `${at.ref}.${mate.label}`];
  const touching = c.project.links.filter((l) => [l.from, l.to].some((e) => e === here || e === there));
  if (
    !touching.some((l) => l.from === here || l.to === here) ||
    !touching.some((l) => l.from === there || l.to === there)
  )
    return [];
  const moved = (end: string) => (end === here ? there : end === there ? here : end);
  return [
    {
      id: `swap-${at.ref}`,
      label: `Swap the two wires at ${label(c, at.ref)}`,
      edits: [
        ...touching.map((l) => ({ type: "removeLink" as const, from: l.from, to: l.to })),
        ...touching.map((l) => ({
          type: "addLink" as const,
          link: { from: moved(l.from), to: moved(l.to), ...(l.locked && { locked: true }) },
        })),
      ],
    },
  ];
}

/** What is wrong where two lines meet on one net; null: they belong together. */
function meeting(c: Circuit, a: End, b: End): Omit<Found, "rule" | "at"> | null {
  if (a.line === b.line) return null;
  const both = `${nameOf(a)} and ${nameOf(b)}`;
  if (a.ref === b.ref)
    return {
      severity: "fault",
      message: `${both} are the two lines of one pair, and they are joined: nothing can be told apart on them.`,
      evidence: { joined_lines: `${a.line} and ${b.line}` },
      fixes: [],
    };
  if (KIND[a.line] !== KIND[b.line])
    return {
      severity: "fault",
      message: `${both} are joined, but one is a line of ${KIND[a.line]}, the other of ${KIND[b.line]}: they do not understand each other.`,
      evidence: { one_line_of: KIND[a.line], other_line_of: KIND[b.line] },
      fixes: [],
    };
  // Makers of RS-485 chips do not agree on which line is A; of CAN they do.
  const sure = KIND[a.line] === "CAN";
  return {
    severity: sure ? "fault" : "risk",
    message: `${nameOf(a)} (line ${a.line}) is wired to ${nameOf(b)} (line ${b.line}): the pair is crossed, and every bit arrives upside down${sure ? "" : ". Some makers name the lines the other way round: if it works as it is, accept it"}.`,
    evidence: { joined_lines: `${a.line} and ${b.line}` },
    fixes: () => swapFixes(c, b),
  };
}

export const pairCrossed: Rule = {
  rule: "net.pair-crossed",
  says: "The two lines of a pair go to the same lines at every part on it: A to A and B to B, H to H and L to L.",
  check: (c) => {
    const told = new Set<string>();
    return [...c.netlist.nets.values()].flatMap((net): Found[] => {
      const ends = linesOn(net);
      // A pair that is joined to itself is the one thing to mend there.
      const joined = ends.find((b, i) => ends.slice(0, i).some((a) => a.ref === b.ref && a.line !== b.line));
      const [a, ...others] = joined ? [ends.find((x) => x.ref === joined.ref)!, joined] : ends;
      return others.flatMap((b): Found[] => {
        const found = meeting(c, a!, b);
        // Both lines of one crossing are one finding.
        const key = [a!.ref, b.ref].sort().join(" ");
        if (!found || told.has(key)) return [];
        told.add(key);
        return [{ rule: "net.pair-crossed", at: [nameOf(a!), nameOf(b)], ...found }];
      });
    });
  },
};
