"use client";
import { useCallback, useState } from "react";
import { useProject } from "./project";

/** Filters, open tabs and the like, by project and name: they last as long as the page does, and are nobody else's business. */
const kept = new Map<string, unknown>();

/** As `useState`, but the value survives leaving the station. `name` is unique in the app; the project is added. */
export function useKept<T>(name: string, initial: T): [T, (next: T | ((now: T) => T)) => void] {
  const { id } = useProject();
  const key = `${id} ${name}`;
  const [value, set] = useState<T>(() => (kept.has(key) ? (kept.get(key) as T) : initial));
  const put = useCallback(
    (next: T | ((now: T) => T)) =>
      set((now) => {
        const v = typeof next === "function" ? (next as (now: T) => T)(now) : next;
        kept.set(key, v);
        return v;
      }),
    [key],
  );
  return [value, put];
}

/** Where each station of a project was last left, its open tab included. */
export const lastPlaces = {
  leave: (id: string, station: string, place: string) => void kept.set(`${id} place of ${station}`, place),
  of: (id: string, station: string) => kept.get(`${id} place of ${station}`) as string | undefined,
};
