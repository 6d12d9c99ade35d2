"use client";
import { useSyncExternalStore } from "react";

const NOTHING: ReadonlySet<string> = new Set();
let now = NOTHING;
const watchers = new Set<() => void>();
const watch = (f: () => void) => {
  watchers.add(f);
  return () => void watchers.delete(f);
};

/** Lights these places in every view: `REF`, `REF.PIN`, net names. They stay lit until others are. */
export function light(places: readonly string[]) {
  if (!places.length && !now.size) return;
  now = places.length ? new Set(places) : NOTHING;
  for (const f of [...watchers]) f();
}

/** All lit places: for drawings that look at each of their pieces. */
export const useLit = (): ReadonlySet<string> =>
  useSyncExternalStore(
    watch,
    () => now,
    () => NOTHING,
  );

/** Whether something is lit. What asks so is drawn again only when the answer changes, not at every step of a pointer. */
export const useIsLit = (test: (lit: ReadonlySet<string>) => boolean): boolean =>
  useSyncExternalStore(
    watch,
    () => test(now),
    () => false,
  );
