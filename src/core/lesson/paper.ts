import type { Circuit } from "../circuit";
import { joinEnd } from "../project";

export interface PaperTask {
  minutes: number;
  /** Joins to be drawn. */
  joins: { says: string; ends: [string, string] }[];
  /** Joins that are left out, since there are only five minutes. */
  given: string[];
  asks: string[];
}

const MINUTES = 5;
const FIRST_S = 60;
const JOIN_S = 20;
const LAST_S = 60;
/** So many lines can be drawn in the time, with a look at the parts before and at the plan after. */
export const MOST_JOINS = Math.floor((MINUTES * 60 - FIRST_S - LAST_S) / JOIN_S);

/** What each kind of join teaches, the most telling first. */
const RANK = { signal: 0, "bus-line": 1, ground: 2, supply: 3 } as const;

/**
 * The plan as an exercise of five minutes with a pencil: as many joins as can be drawn, each kind among them, in words that tell
 * what for; the rest is given.
 */
export function paperTask(c: Circuit): PaperTask {
  const name = (end: { ref: string; pin: string }) => `${c.netlist.instance(end.ref)?.label ?? end.ref} ${end.pin}`;
  const wires = c.netlist.wires.filter((w) => !w.cable);
  const list = wires.map((w) => {
    const net = c.netlist.netOf(joinEnd(w.from));
    return { w, net, rank: RANK[net.kind] };
  });
  const kinds = [0, 1, 2, 3].map((k) => list.filter((x) => x.rank === k));
  // One of each kind in turn, so that no list of five grounds is drawn.
  const turn = Array.from({ length: Math.max(0, ...kinds.map((k) => k.length)) }, (_, i) =>
    kinds.flatMap((k) => (k[i] ? [k[i]] : [])),
  ).flat();
  const chosen = new Set(turn.slice(0, MOST_JOINS));
  const FOR = {
    ground: "so that its current can go back",
    supply: "so that it is fed",
    signal: "so that it can be told, or tell",
    "bus-line": "a line that several share",
  } as const;
  const joins = list
    .filter((x) => chosen.has(x))
    .map((x) => ({
      says: `${name(x.w.from)} with ${name(x.w.to)}: ${FOR[x.net.kind]}.`,
      ends: [joinEnd(x.w.from), joinEnd(x.w.to)] as [string, string],
    }));
  const rest = list.filter((x) => !chosen.has(x)).map((x) => `${name(x.w.from)} with ${name(x.w.to)}`);
  const grounds = list.filter((x) => x.rank === 2).length;
  return {
    minutes: MINUTES,
    joins,
    given: rest,
    asks: [
      "Which two of your lines must never touch each other? Mark them.",
      ...(grounds > 1 ? [`${grounds} lines end at ground. Why do they all, and where could they meet first?`] : []),
      "Follow one current with your pencil from the supply and back to it. Lift the pencil where a switch or a program may stop it.",
    ],
  };
}
