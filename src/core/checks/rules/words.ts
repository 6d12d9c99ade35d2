import type { Circuit } from "../../circuit";
import type { Net, NetElement } from "../../circuit/netlist";
import type { Way } from "../../circuit/solve";
import { sourcesOn } from "../../circuit/power";
import { findPin } from "../../parts/catalogue";
import { splitEnd } from "../../project";
import { endOfLink, label } from "../help";
import type { Fix } from "../types";

/** A rail as people call it: its name, and the source on it. */
export function railWords(c: Circuit, net: Net): string {
  if (net.kind === "ground") return "ground";
  const source = sourcesOn(c.netlist, net)[0];
  return source ? `${net.name} of ${label(c, source.ref)}` : net.name;
}

/** The parts on a way, nearest first, without repeats: "through R1 and SW1"; empty for a plain wire. */
export function wayWords(passed: readonly NetElement[]): string {
  const refs = [...new Set(passed.map((e) => e.ref))];
  return refs.length ? ` through ${refs.join(" and ")}` : "";
}

/** Where a way ends, in words. */
export const endWords = (c: Circuit, end: Way["end"]): string =>
  end.kind === "rail" ? railWords(c, end.net) : end.kind === "pin" ? end.driver.key : "nowhere";

const isRailEnd = (c: Circuit, end: string) => {
  const { ref, pin } = splitEnd(end);
  const part = c.netlist.instance(ref)?.part;
  const role = part && findPin(part, pin)?.role;
  return role === "ground" || (role?.startsWith("supply-") ?? false);
};

/** Takes out the wires that lead from a pin to a rail (where there are none: to anything), each as a fix of its own. */
export function unwireFixes(c: Circuit, end: string, most = 2): Fix[] {
  const all = c.project.links.flatMap((l) => {
    const far = endOfLink(l, end);
    return far === null ? [] : [{ l, rail: isRailEnd(c, far) }];
  });
  const rails = all.filter((x) => x.rail);
  return (rails.length ? rails : all).slice(0, most).map(({ l }) => ({
    id: `remove-wire-${l.from}-${l.to}`,
    label: `Take out the wire from ${l.from} to ${l.to}`,
    edits: [{ type: "removeLink" as const, from: l.from, to: l.to }],
  }));
}
