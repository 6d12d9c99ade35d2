import type { Group } from "../../parts/catalogue";
import type { Instance, Netlist } from "../netlist";

/**
 * The fastest clock that a part takes on a bus, hertz; undefined where its data say none. Where the data sheet names it at
 * several voltages of the supply, the one at the lowest voltage that the part gets here, on straight lines between them.
 */
export function fastestHz(netlist: Netlist, inst: Instance, g: Group, line: string): number | undefined {
  const list = g.max_Hz_at;
  const level = list && inst.part.pins.find((p) => p.label === line)?.level;
  const supply = level && inst.part.levels[level]?.supply;
  const V = supply ? netlist.netOf(`${inst.ref}:${supply}`).V?.min : undefined;
  if (!list || V === undefined) return g.max_Hz;
  const k = list.findIndex((x) => x.V > V);
  if (k < 0) return list.at(-1)!.Hz;
  if (k === 0) return list[0]!.Hz;
  const [a, b] = [list[k - 1]!, list[k]!];
  return Math.round(a.Hz + ((b.Hz - a.Hz) * (V - a.V)) / (b.V - a.V));
}
