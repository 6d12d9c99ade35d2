import { cellVolts, type Chemistry, type Part } from "../../parts/catalogue";
import { evaluate } from "../../quantity";
import type { Sleep } from "../../project";
import type { Netlist } from "../netlist";
import { inCold } from "./cold";
import { lowestNeeded } from "./needs";
import { sourcesOn, type SourceAt } from "./at";
import type { Load, PowerReport } from "./tree";

/** What becomes of the printed capacity: age, a cool room, self-discharge take some; a fresh one may give a little more. */
const WORN = 0.75;
const FRESH = 1.05;

/** Volts of a whole battery when `used` (0 to 1) of its charge is gone and it gives `A` amperes: E(used)·n − A·Ri. */
export function batteryVolts(b: Pick<Battery, "chemistry" | "cells" | "rint_ohm">, used: number, A: number): number {
  return b.cells * cellVolts(b.chemistry, used) - A * b.rint_ohm;
}

export interface Battery {
  ref: string;
  label: string;
  chemistry: Chemistry;
  cells: number;
  capacity_Ah: number;
  rint_ohm: number;
  /** Share of the time that the project is awake; the rest it idles. */
  duty: number;
  /** What the share follows from: the round of the board on it that is awake for the largest part of its own; null: it is a guess. */
  sleeps: { ref: string; sleep: Sleep } | null;
  flow: Load;
  /** Volts below which something stops working, and what. */
  cutoff_V: number;
  cutoffBy: string | null;
  /** The air at its coldest where the build lives, °C. */
  coldest_C: number;
}

/** What flows on average, amperes, of something that is awake for this share of the time. */
export const averageOf = (flow: Load, duty: number): number => duty * flow.typ + (1 - duty) * flow.idle;

/** Whether some program of ours lets a board sleep: then its data say what it draws meanwhile. */
export const canSleep = (part: Part) => Object.values(part.supplies).some((s) => s.mA?.asleep !== undefined);

export interface BatteryLife {
  battery: Battery;
  average_A: number;
  /** Share of the charge that is used when the voltage under peak load reaches the cut-off. */
  usable: number;
  /** Hours: a worn battery at the coldest against a fresh one in a room. */
  hours: { min: number; max: number };
  /** Volts lost inside at the peak, in a room and at the coldest. */
  sag_V: number;
  coldSag_V: number;
  points: { used: number; rest_V: number; peak_V: number }[];
}

/** Of the boards among some loads, if all of them sleep between readings, the one that is awake the most. */
export function sleeperOn(n: Netlist, loads: readonly { ref: string }[]): Battery["sleeps"] {
  const boards = [...new Set(loads.map((l) => l.ref))].flatMap((ref) => {
    const inst = n.instance(ref);
    return inst?.part.board ? [{ ref, sleep: inst.sleep, can: canSleep(inst.part) }] : [];
  });
  const share = (x: Sleep) => x.awake_s / x.every_s;
  const asleep = boards.flatMap(({ ref, sleep, can }) => (sleep && can ? [{ ref, sleep }] : []));
  return asleep.length && asleep.length === boards.length
    ? asleep.sort((a, b) => share(b.sleep) - share(a.sleep))[0]!
    : null;
}

function batteryOf(n: Netlist, power: PowerReport, s: SourceAt, netId: string, coldest_C: number): Battery | null {
  const { chemistry, cells, capacity_mAh, rint_ohm } = s.source;
  const limit = power.limits.find((l) => l.net === netId && l.kind === "source");
  if (!chemistry || capacity_mAh === undefined || !limit) return null;
  const need = lowestNeeded(n, power, netId);
  const empty = evaluate(s.source.V.min, s.inst.vars);
  const sleeps = sleeperOn(n, limit.loads);
  return {
    ref: s.ref,
    label: s.inst.label,
    chemistry,
    cells: cells ?? 1,
    capacity_Ah: evaluate(capacity_mAh, s.inst.vars) / 1000,
    rint_ohm: evaluate(rint_ohm ?? 0, s.inst.vars),
    duty: sleeps ? sleeps.sleep.awake_s / sleeps.sleep.every_s : (s.inst.vars.duty ?? 1),
    sleeps,
    flow: limit.flow,
    cutoff_V: Math.max(need.V, empty),
    cutoffBy: need.V > empty ? need.by : null,
    coldest_C,
  };
}

/** The share of the charge at which the voltage under `A` amperes falls to `cutoff`, by halving; 0 when at once. */
function usableAt(b: Battery, cutoff: number, A: number): number {
  if (batteryVolts(b, 0, A) <= cutoff) return 0;
  if (batteryVolts(b, 1, A) > cutoff) return 1;
  let [lo, hi] = [0, 1];
  for (let i = 0; i < 40; i++) {
    const mid = (lo + hi) / 2;
    if (batteryVolts(b, mid, A) > cutoff) lo = mid;
    else hi = mid;
  }
  return lo;
}

/**
 * How long a battery lasts: capacity · usable share ÷ (duty · typical + (1 − duty) · idle), from worn and cold to fresh. The
 * usable share ends where the voltage under the typical current, sag included, is no longer enough; for the worn one, under
 * the peak and with the inner resistance of a cold cell.
 */
export function batteryLife(b: Battery): BatteryLife {
  const average_A = averageOf(b.flow, b.duty);
  const usable = usableAt(b, b.cutoff_V, b.flow.typ);
  const cold = inCold(b.chemistry, b.coldest_C);
  const careful = usableAt({ ...b, rint_ohm: b.rint_ohm * cold.times }, b.cutoff_V, b.flow.peak);
  const hours = (share: number, worn: number) =>
    average_A > 0 ? (b.capacity_Ah * share * worn) / average_A : Infinity;
  return {
    battery: b,
    average_A,
    usable,
    hours: { min: hours(careful, WORN * cold.share), max: hours(usable, FRESH) },
    sag_V: b.flow.peak * b.rint_ohm,
    coldSag_V: b.flow.peak * b.rint_ohm * cold.times,
    points: Array.from({ length: 41 }, (_, i) => {
      const used = i / 40;
      return { used, rest_V: batteryVolts(b, used, b.flow.idle), peak_V: batteryVolts(b, used, b.flow.peak) };
    }),
  };
}

/** Every battery of a circuit that something hangs on, where the air gets as cold as `coldest_C`. */
export function batteries(n: Netlist, power: PowerReport, coldest_C: number): BatteryLife[] {
  return n.nets.flatMap((net) =>
    net.kind === "supply"
      ? sourcesOn(n, net).flatMap((s) => {
          const b = batteryOf(n, power, s, net.id, coldest_C);
          return b ? [batteryLife(b)] : [];
        })
      : [],
  );
}
