"use client";
import dynamic from "next/dynamic";
import type { ComponentType } from "react";

const opening = () => <p className="mt-3 text-soft">Opening…</p>;

/** A view whose script is fetched when it is first looked at. */
export const later = <P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> =>
  dynamic<P>(() => load(), { loading: opening });
