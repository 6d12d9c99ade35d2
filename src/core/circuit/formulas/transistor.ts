import { nextUp, seriesValues, type Triple } from "../../quantity";

/** A bipolar transistor as a switch: what drives its base, and what its collector shall carry. Volts, amperes, ohms. */
export interface BjtAsk {
  /** High of the driving pin. */
  V: Triple;
  pin_ohm?: number;
  Vbe: Triple;
  hFE_min: number;
  VCEsat_V: number;
  /** The most forced gain that still counts as saturated; left out: that of a single transistor. */
  saturated?: number;
  load_A: number;
  owned?: readonly number[];
}
/** What a transistor is sure of at one collector current. */
export interface BjtPoint {
  Ic_mA: number;
  hFE_min: number;
  Vbe_max: number;
}
/**
 * Gain and base voltage at a collector current, amperes: of the points that the data sheet names the worse of the two that it
 * lies between; what holds at any current where none are named, and no better than the last point beyond it.
 */
export function bjtAt(
  def: { hFE_min: number; Vbe: Triple; at?: readonly BjtPoint[] | undefined },
  Ic_A: number,
): { hFE_min: number; Vbe: Triple } {
  const list = def.at ?? [];
  const k = list.findIndex((p) => p.Ic_mA >= Ic_A * 1000 - 1e-9);
  const anywhere = { hFE_min: def.hFE_min, Vbe_max: def.Vbe.max };
  const near = k < 0 ? [anywhere, ...list.slice(-1)] : list.slice(Math.max(0, k - 1), k + 1);
  const max = Math.max(...near.map((p) => p.Vbe_max));
  return {
    hFE_min: Math.min(...near.map((p) => p.hFE_min)),
    Vbe: { min: def.Vbe.min, typ: Math.min(def.Vbe.typ, max), max },
  };
}

/** The most forced gain at which a single transistor still counts as saturated; what a stage aims at leaves a quarter of it. */
export const BETA_MAX = 20;
const AIM = 0.75;
export const BETA = AIM * BETA_MAX;
/** Carbon film and metal film as sold: 5 %. */
const TOLERANCE = 0.05;

export interface BjtStage {
  /** Base resistor: exact and the series value taken (next down, so that the base gets no less). */
  exact: number;
  ohm: number;
  /** Collector current over the least base current: forced gain. */
  beta: number;
  /** The most that the pin has to give. */
  pin_A: number;
  /** Heat in the transistor while on, and in the resistor at most. */
  W: number;
  R_W: number;
}

/** The largest value of a series, or of what the person owns, that is not above `value`. */
export function nextDown(value: number, owned: readonly number[] = []): number {
  const mine = owned.filter((v) => v <= value && v >= value / 1.5);
  if (mine.length) return Math.max(...mine);
  return seriesValues("E12", value / 2, value * 1.0000001).at(-1) ?? value;
}

/** Least base current with a given resistor: (VOH − VBE) / (R + pin), worst case. */
export const leastBase = (a: Pick<BjtAsk, "V" | "Vbe" | "pin_ohm">, ohm: number) =>
  Math.max(0, a.V.min - a.Vbe.max) / (ohm * (1 + TOLERANCE) + (a.pin_ohm ?? 0));

/**
 * Base resistor of a saturated switch: R = (VOH − VBE) / (IC / 15), next E12 value down. Forced gain between 10 and 20
 * keeps a small transistor well saturated whatever its own gain (data sheets give VCE(sat) at IC/IB = 10). A pair in one
 * case aims at three quarters of the ratio at which its data sheet gives VCE(sat).
 */
export function bjtStage(a: BjtAsk): BjtStage | null {
  const head = a.V.min - a.Vbe.max;
  if (head <= 0 || a.load_A <= 0) return null;
  const exact = head / (a.load_A / (AIM * (a.saturated ?? BETA_MAX))) - (a.pin_ohm ?? 0);
  if (exact <= 0) return null;
  const ohm = nextDown(exact, a.owned);
  const most = (a.V.max - a.Vbe.min) / (ohm * (1 - TOLERANCE));
  return {
    exact,
    ohm,
    beta: a.load_A / leastBase(a, ohm),
    pin_A: most,
    W: a.load_A * a.VCEsat_V + most * a.Vbe.max,
    R_W: most * most * ohm,
  };
}

/** A MOSFET as a low-side switch. `on`: guaranteed on-resistance at each gate drive of the data sheet. */
export interface FetAsk {
  V: Triple;
  on: readonly { Vgs: number; ohm: number }[];
  load_A: number;
  /** What the pin likes to give at most, amperes. */
  pin_A: number;
  Qg_nC?: number;
  owned?: readonly number[];
}
export interface FetStage {
  /** Guaranteed on-resistance at the drive that is there; 1.5 times as much when hot. */
  ohm: number;
  drop_V: number;
  W: number;
  gate_ohm: number;
  pull_ohm: number;
  /** Time to switch, seconds: charge over the mean gate current. */
  switch_s: number | null;
}
/** On-resistance grows with heat: about half as much again at 100 °C. */
const HOT = 1.5;

/** The guaranteed on-resistance at a gate drive, ohms; null when the data sheet guarantees none that low. */
export const onResistance = (on: FetAsk["on"], Vgs: number): number | null => {
  const fits = on.filter((x) => x.Vgs <= Vgs + 1e-9).map((x) => x.ohm);
  return fits.length ? Math.min(...fits) : null;
};

/**
 * Gate resistor so that charging the gate asks no more of the pin than it likes, a pull-down of 10 kΩ that holds the gate
 * while the board starts, drop and heat at the guaranteed on-resistance. Null when the drive is below what is guaranteed.
 */
export function fetStage(a: FetAsk): FetStage | null {
  const ohm = onResistance(a.on, a.V.min);
  if (ohm === null) return null;
  const gate_ohm = nextUp(a.V.max / a.pin_A, "E12", a.owned);
  return {
    ohm,
    drop_V: a.load_A * ohm * HOT,
    W: a.load_A * a.load_A * ohm * HOT,
    gate_ohm,
    pull_ohm: nextUp(10_000, "E12", a.owned),
    switch_s: a.Qg_nC === undefined ? null : (a.Qg_nC * 1e-9) / (a.V.min / 2 / gate_ohm),
  };
}
