"use client";
import dynamic from "next/dynamic";
import type { ComponentType } from "react";
import { useDrawn } from "./after-paint";

const opening = () => <p className="mt-3 text-soft">Opening…</p>;

/** A view whose script is fetched when it is first looked at. */
export const later = <P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> =>
  dynamic<P>(() => load(), { loading: opening });

/** One that stands beside what the hands need first: its script waits until that is on the screen. */
export function afterwards<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  const View = later(load);
  return function Afterwards(props: P) {
    const drawn = useDrawn();
    return drawn ? <View {...props} /> : opening();
  };
}
