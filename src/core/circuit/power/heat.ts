import type { Netlist } from "../netlist";
import type { Stage } from "./tree";

/** Where silicon regulators shut themselves off, °C. */
export const JUNCTION_MAX_C = 125;
/** Above this a regulator ages fast and burns fingers, °C. */
export const JUNCTION_WARM_C = 100;
/** Package and pads unknown: a small one (SOT-23-5) up to 300 mA, a larger one (SOT-223) above. */
const ASSUMED_THETA = (limit_mA: number) => (limit_mA <= 300 ? 250 : 90);

export interface Heat {
  /** Watts that the regulator turns into heat, lasting (typical current) and at peak. */
  typ_W: number;
  peak_W: number;
  /** Junction temperature at the lasting current, °C. */
  junction_C: number;
  theta_C_per_W: number;
  /** True when the data gives no thermal resistance and one was taken for the size. */
  assumed: boolean;
}

/** Junction temperature: ambient + P·θJA, °C; P in watts, θ in °C/W. */
export const junction = (W: number, theta: number, ambient: number) => ambient + W * theta;

/**
 * Heat in a linear regulator, (Vin − Vout)·I at the highest input and lowest output; a switching one loses the share
 * that its efficiency leaves. `ambient` is the warmest air around it, °C. Null for wires, fuses and diodes, and for what is not fed.
 */
export function stageHeat(n: Netlist, s: Stage, ambient: number): Heat | null {
  const [vin, vout] = [n.nets.find((x) => x.id === s.from)?.V, n.nets.find((x) => x.id === s.to)?.V];
  const { kind, theta_C_per_W, limit_mA, efficiency } = s.converter;
  if (!vin || !vout || (kind !== "linear" && kind !== "switching")) return null;
  const loss = (out_A: number) =>
    kind === "linear" ? Math.max(0, vin.max - vout.min) * out_A : vout.max * out_A * (1 / (efficiency ?? 0.8) - 1);
  const theta = theta_C_per_W ?? ASSUMED_THETA(limit_mA);
  const typ_W = loss(s.out.typ);
  return {
    typ_W,
    peak_W: loss(s.out.peak),
    junction_C: junction(typ_W, theta, ambient),
    theta_C_per_W: theta,
    assumed: theta_C_per_W === undefined,
  };
}
