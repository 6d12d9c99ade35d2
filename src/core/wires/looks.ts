import { netColours } from "../build/colours";
import type { Circuit } from "../circuit";
import type { Link } from "../project";

/** The colour of a wire: its own, or that of its net. */
export function colourOf(c: Circuit, l: Link): string {
  const net = c.netlist.netOf(l.from);
  return l.colour ?? netColours(c.netlist.nets, c.project.houseRules.wireColours).get(net?.id ?? "") ?? "";
}
