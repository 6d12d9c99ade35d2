import type { Link } from "../../project";
import { outerTerminal } from "./expand";
import type { Netlist } from "./types";

const memo = new WeakMap<Netlist, Map<string, Link>>();
const pair = (a: string, b: string) => (a < b ? `${a} ${b}` : `${b} ${a}`);

/**
 * The project's link behind a wire between two pins as they stand in the circuit, series parts and all; undefined where the plan
 * lays a wire of its own. Its length, gauge and colour are the wire's, wherever it is listed.
 */
export function linkBehind(n: Netlist, a: string, b: string): Link | undefined {
  let known = memo.get(n);
  if (!known) {
    known = new Map(
      n.expanded.project.links.map((l) => [
        pair(outerTerminal(n.expanded, l.from), outerTerminal(n.expanded, l.to)),
        l,
      ]),
    );
    memo.set(n, known);
  }
  return known.get(pair(a, b));
}
