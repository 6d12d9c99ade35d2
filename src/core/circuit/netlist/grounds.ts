import { findPin, type Pin } from "../../parts/catalogue";
import type { Project } from "../../project";
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
