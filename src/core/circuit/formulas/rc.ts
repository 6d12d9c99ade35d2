import { nextUp } from "../../quantity";

/** Time for an RC step to get from `from` to `at` on its way to `to`, seconds: −τ·ln((to − at)/(to − from)). */
export function rcTime(tau_s: number, from: number, to: number, at: number): number {
  const share = (to - at) / (to - from);
  return share > 0 && share <= 1 ? -tau_s * Math.log(share) : Infinity;
}

/** Debounce at a contact to ground: pull-up, series resistor behind the contact, capacitor at the pin. */
export interface DebounceAsk {
  V: number;
  pull_ohm: number;
  series_ohm: number;
  bounce_s: number;
  VIH: number;
  VIL: number;
  owned?: readonly number[];
}
export interface Debounce {
  exact_F: number;
  F: number;
  /** From opening to a high, from closing to a low, seconds. */
  release_s: number;
  press_s: number;
  /** What the closed contact leaves at the pin, volts: the series resistor against the pull-up. */
  low_V: number;
}

/**
 * Capacitor that bridges the bounce: while the contact chatters open, the pin must not rise to VIH, so
 * (Rpull + Rseries)·C·−ln(1 − VIH/V) ≥ bounce time; next E12 value up. Slow edges want a Schmitt input.
 */
export function debounce(a: DebounceAsk): Debounce | null {
  const low_V = (a.V * a.series_ohm) / (a.series_ohm + a.pull_ohm);
  if (low_V >= a.VIL || low_V >= a.VIH || a.VIH >= a.V) return null;
  const rise = rcTime(1, low_V, a.V, a.VIH);
  const exact_F = a.bounce_s / (rise * (a.pull_ohm + a.series_ohm));
  const F =
    nextUp(
      exact_F * 1e9,
      "E12",
      a.owned?.map((x) => x * 1e9),
    ) * 1e-9;
  const across = (a.series_ohm * a.pull_ohm) / (a.series_ohm + a.pull_ohm);
  return {
    exact_F,
    F,
    release_s: rise * (a.pull_ohm + a.series_ohm) * F,
    press_s: rcTime(across * F, a.V, low_V, a.VIL),
    low_V,
  };
}

/** Capacitor that covers a current step until the supply follows, farads: C = I·t / ΔV. */
export const reservoir = (I: number, t_s: number, dV: number) => (I * t_s) / dV;
