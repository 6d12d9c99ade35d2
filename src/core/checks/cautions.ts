import type { Circuit } from "../circuit";

/** Cautions of every part in the plan, with the ones that always hold. */
export function cautions(c: Circuit): string[] {
  const own = [...c.netlist.expanded.instances.values()].flatMap((i) => i.part.cautions.map((t) => `${i.label}: ${t}`));
  return [
    "Wire with every supply unplugged. Check the polarity of supplies, electrolytic capacitors and lights before power.",
    "If anything gets hot or smells, unplug at once.",
    ...new Set(own),
  ];
}
