import type { Driver } from "../../circuit/solve";
import type { Laid, LaidElement } from "./laid";
import type { How, State } from "./types";

const known = new WeakMap<Laid, Map<number, Driver>>();

/** Pins that a program or a part drives, by terminal, as the solved circuit has them. */
export function driversOf(laid: Laid): ReadonlyMap<number, Driver> {
  const there = known.get(laid);
  if (there) return there;
  const made = new Map<number, Driver>();
  for (const list of laid.c.solved.scene.drivers.values())
    for (const d of list) {
      const t = laid.place.get(d.key);
      if (t !== undefined) made.set(t, d);
    }
  known.set(laid, made);
  return made;
}

/** Amperes through an element of a build, without sign; between two rails its own draw decides. */
export function ampsThrough(s: State, e: LaidElement, how: How): number {
  for (const t of [e.a, e.b]) {
    if (s.held.has(s.root(t))) continue;
    const shown = s.look(t, how);
    if (shown) return Math.abs(shown.amps(e));
  }
  const V = s.volts(e.a, e.b);
  return V !== null && V > 0.1 && e.of.A ? e.of.A.typ : 0;
}
