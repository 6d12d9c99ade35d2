import { count } from "../quantity/count";
import type { Instance } from "../circuit/netlist";
import { formatSI } from "../quantity";

const VALUE: Record<string, (v: Record<string, number>) => string> = {
  "discrete/resistor": (v) => formatSI(v.resistance_ohm ?? 0, "Ω"),
  "discrete/electrolytic": (v) => `${v.capacitance_uF} µF`,
  "discrete/capacitor": (v) => formatSI((v.capacitance_uF ?? 0) * 1e-6, "F"),
  "module/ws2812b-strip": (v) => count(Number(v.pixels), "light"),
};

/** What tells a loose part from its like: 4.7 kΩ, 100 nF, 24 lights; empty for others. */
export const valueOf = (i: Pick<Instance, "part" | "vars">): string => VALUE[i.part.id]?.(i.vars) ?? "";

/** A part as it is called on the bench: the person's name for it, or what it is and for whom, with its value. */
export function benchName(i: Instance): string {
  const value = valueOf(i);
  if (!i.inserted) return value && i.label === i.ref ? `${i.ref}, ${value}` : i.label;
  return `${i.ref}, ${[value, i.label.charAt(0).toLowerCase() + i.label.slice(1)].filter(Boolean).join(" ")}`;
}
