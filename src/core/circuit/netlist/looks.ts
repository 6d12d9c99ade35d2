import type { Link } from "../../project";
import { outerTerminal } from "./expand";
import type { Netlist } from "./types";

const memo = new WeakMap<Netlist, { pairs: Map<string, Link>; alone: Map<string, Link | null> }>();
const pair = (a: string, b: string) => (a < b ? `${a} ${b}` : `${b} ${a}`);

function known(n: Netlist) {
  const there = memo.get(n);
  if (there) return there;
  const made = { pairs: new Map<string, Link>(), alone: new Map<string, Link | null>() };
  for (const l of n.expanded.project.links) {
    const ends = [l.from, l.to].map((e) => outerTerminal(n.expanded, e)) as [string, string];
    made.pairs.set(pair(...ends), l);
    for (const e of ends) made.alone.set(e, made.alone.has(e) ? null : l);
  }
  memo.set(n, made);
  return made;
}

/**
 * The project's link behind a wire between two pins as they stand in the circuit, series parts and all; undefined where the plan
 * lays a wire of its own. Its length, gauge and colour are the wire's, wherever it is listed.
 */
export function linkBehind(n: Netlist, a: string, b: string): Link | undefined {
  const { pairs, alone } = known(n);
  const exact = pairs.get(pair(a, b));
  if (exact) return exact;
  // A wire to a rail or splice is that of the pin at its other end, where only one hangs there.
  const isPin = (x: string) => n.instance(x.split(".")[0]!) !== undefined;
  const [pin] = isPin(a) === isPin(b) ? [] : [isPin(a) ? a : b];
  return pin === undefined ? undefined : (alone.get(pin) ?? undefined);
}
