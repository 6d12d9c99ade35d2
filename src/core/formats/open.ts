import type { Circuit } from "../circuit";
import type { Pin } from "../parts/catalogue";
import { openPins } from "../plan/assign";

/** A pin that still wants a wire. */
export interface OpenNeed {
  end: string;
  part: string;
  wants: string;
}

/** What an open pin still wants, in words. */
const wantWords = (p: Pin): string =>
  p.role === "ground"
    ? "ground"
    : p.role.startsWith("supply-")
      ? "a supply"
      : p.need
        ? `${p.need.kind}${p.need.role ? ` ${p.need.role}` : ""}`
        : p.hook === "ground"
          ? "ground"
          : "a wire";

/** Grounds and supply pins that are one inside a part want one wire between them. */
function joinedInside(c: Circuit, ref: string, pin: Pin): boolean {
  if (pin.role !== "ground" && !pin.role.startsWith("supply-")) return false;
  const net = c.netlist.netOf(`${ref}.${pin.label}`);
  return net.ends.some((e) => e.ref !== ref);
}

/** Pins that still want a wire, in words: nothing of a plan hides that it is not whole. */
export function openNeeds(c: Circuit): OpenNeed[] {
  const bound = new Set(c.netlist.bindings.map((b) => `${b.ref}.${b.pin}`));
  return [...c.netlist.expanded.instances.values()].flatMap((inst) =>
    inst.inserted || inst.part.board || inst.part.id.startsWith("supply/")
      ? []
      : openPins(c.project, c.netlist, inst)
          .filter((p) => !bound.has(`${inst.ref}.${p.label}`) && !joinedInside(c, inst.ref, p))
          .map((p) => ({ end: `${inst.ref}.${p.label}`, part: inst.label, wants: wantWords(p) })),
  );
}
