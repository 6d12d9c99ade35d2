import type { Circuit } from "../circuit";
import type { LevelVerdict } from "../circuit/solve";
import { rootOf } from "../circuit/power";
import { dice, type Flow, type PinCurrent } from "../circuit/solve";
import { evaluate, type Triple } from "../quantity";
import { splitEnd } from "../project";
import type { Finding } from "./types";

/** Builds that are drawn; the seed is the same every time, so that a share does not flicker. */
const BUILDS = 1000;
const SEED = 20;

const within = (t: Triple, at: number) => t.min + at * (t.max - t.min);
const share = (bad: number) => bad / BUILDS;

/**
 * A driver against a receiver: both supplies drawn from their ranges (one draw where one source feeds both), the drop of the
 * output between half and all of what is guaranteed, and the place where the input really turns between the middle of its two
 * thresholds and the guaranteed one.
 */
function ofPair(c: Circuit, v: LevelVerdict, side: "high" | "low"): number | null {
  const [d, r] = [v.driver, v.receiver];
  const level = c.netlist.level(r.ref, r.pin);
  const out = c.netlist.level(d.ref, d.pin);
  if (!level?.VIH || v.driver.how !== "push-pull" || d.net !== r.net || !out) return null;
  const root = (id: string) => rootOf(c.netlist, c.power, id)?.source.ref;
  const together = d.supplyNet === r.supplyNet || (root(d.supplyNet) === root(r.supplyNet) && d.V.typ === r.V.typ);
  const roll = dice(SEED);
  const vars = c.netlist.instance(r.ref)!.vars;
  let bad = 0;
  for (let i = 0; i < BUILDS; i++) {
    const one = roll();
    const [Vd, Vr] = [within(d.V, one), within(r.V, together ? one : roll())];
    const [VIH, VIL] = [level.VIH, level.VIL ?? 0].map((x) => evaluate(x, { ...vars, V: Vr })) as [number, number];
    const full = side === "high" ? v.high_V - d.V.min : v.low_V;
    const kept = full * (0.5 + roll() / 2);
    const mid = (VIH + VIL) / 2;
    const turn = mid + roll() * ((side === "high" ? VIH : VIL) - mid);
    if (side === "high" ? Vd + kept < turn : kept > turn) bad++;
  }
  return share(bad);
}

/** A rail below what a part asks for: every voltage of its range is as likely as the next. */
function ofRail(c: Circuit, f: Finding): number | null {
  const V = c.netlist.netOf(f.at[0]!)?.V;
  const [least, most] = [Number(f.evidence.min_V), Number(f.evidence.max_V)];
  if (!V || V.max <= V.min || Number.isNaN(least + most)) return null;
  const roll = dice(SEED);
  let bad = 0;
  for (let i = 0; i < BUILDS; i++) {
    const v = within(V, roll());
    if (v < least || v > most) bad++;
  }
  return share(bad);
}

function ofAmps(c: Circuit, of: Flow | PinCurrent | undefined, limit_A: number): number | null {
  if (!of || Number.isNaN(limit_A)) return null;
  const list = c.solved.builds(of, BUILDS, dice(SEED));
  return list.length ? share(list.filter((A) => A > limit_A).length) : null;
}

const flowOf = (c: Circuit, ref: string) =>
  [...c.solved.flows.values()].filter((x) => x.element.ref === ref).sort((a, b) => b.A.worst - a.A.worst)[0];
const pairAt = (c: Circuit, f: Finding) =>
  c.levels.find(
    (v) => `${v.driver.ref}.${v.driver.pin}` === f.at[0] && `${v.receiver.ref}.${v.receiver.pin}` === f.at[1],
  );

const SHARES: Readonly<Record<string, (c: Circuit, f: Finding) => number | null>> = {
  "level.low-high": (c, f) => {
    const v = pairAt(c, f);
    return v ? ofPair(c, v, "high") : null;
  },
  "level.high-low": (c, f) => {
    const v = pairAt(c, f);
    return v ? ofPair(c, v, "low") : null;
  },
  "power.range": ofRail,
  "current.pin": (c, f) => ofAmps(c, c.solved.pins.get(f.at[0]!), Number(f.evidence.recommended_mA) / 1000),
  "current.led": (c, f) => ofAmps(c, flowOf(c, splitEnd(f.at[0]!).ref), Number(f.evidence.max_mA) / 1000),
  "contact.rating": (c, f) => ofAmps(c, flowOf(c, splitEnd(f.at[0]!).ref), Number(f.evidence.rated_mA) / 1000),
};

/**
 * The share of builds in which a finding comes true, from 1,000 builds with their tolerances drawn evenly (seeded): null
 * where it does not hang on tolerances.
 */
export const shareOf = (c: Circuit, f: Finding): number | null => SHARES[f.rule]?.(c, f) ?? null;

/** The class for which a share is told. */
const BENCHES = 30;

/** "about 2 of 30 benches"; what is nearly none or nearly all is said so. */
export function shareWords(share: number): string {
  const n = Math.round(share * BENCHES);
  if (share === 0) return `none of ${BUILDS} drawn builds: only the last corner fails`;
  if (n === 0) return `fewer than one of ${BENCHES} benches`;
  return n >= BENCHES ? "every bench" : `about ${n} of ${BENCHES} benches`;
}
