import { findPin, type Pin } from "../../parts/catalogue";
import { houseRule, type Project } from "../../project";
import type { Net, Netlist } from "./types";

/** The ground net that a member of an `isolated` list stands on: a part, or one side or pin of it (`M1.far`). */
export function groundOf(n: Netlist, member: string): Net | undefined {
  const [ref = "", side] = member.split(/\.(.*)/s);
  const part = n.instance(ref)?.part;
  if (!part) return undefined;
  const domain = (p: Pin) => p.domain ?? "gnd";
  const domains = [...new Set(part.pins.filter((p) => p.role === "ground").map(domain))];
  const wanted = side
    ? side === "left"
      ? domains[0]
      : side === "right"
        ? domains.at(-1)
        : (part.supplies[side]?.domain ?? part.supplies[findPin(part, side)?.supply ?? ""]?.domain ?? side)
    : undefined;
  const pin =
    (side ? part.pins.find((p) => p.role === "ground" && (p.label === side || domain(p) === wanted)) : undefined) ??
    (side ? undefined : part.pins.find((p) => p.role === "ground"));
  return pin && n.netOf(`${ref}.${pin.label}`);
}

/** Whether two lists that the project keeps apart stand on one ground net. */
export function isolationBroken(n: Netlist, project: Project): boolean {
  const lists = project.isolated.map((list) => new Set(list.map((m) => groundOf(n, m)?.id)));
  return lists.some((a, i) => lists.slice(i + 1).some((b) => [...a].some((id) => id !== undefined && b.has(id))));
}

/**
 * Ground nets that are kept apart on purpose: by the project's list or house rule, or because a part stands between them,
 * one ground on each side. Two grounds that are only not joined yet are a fault, and no reason to keep them apart.
 */
export function separateGrounds(n: Netlist): Set<string> {
  const { project } = n.expanded;
  const wired = n.nets.filter((x) => x.kind === "ground" && x.ends.length > 1);
  if (wired.length < 2) return new Set();
  const between = project.parts.some((p) => {
    const sides = wired.filter((x) => x.ends.some((e) => e.ref === p.ref));
    return sides.length > 1 && (n.instance(p.ref)?.part.channels.length ?? 0) > 0;
  });
  const meant =
    between ||
    project.isolated.length > 0 ||
    houseRule(project, "grounds") === "isolated" ||
    n.bindings.some((b) => b.isolated);
  return new Set(meant ? wired.map((x) => x.id) : []);
}
