"use client";
import type { ComponentProps } from "react";
import type { PlainChart as Canvas } from "./chart-canvas";
import { later } from "./later";

const Drawn = later(() => import("./chart-canvas").then((m) => m.PlainChart));

/** A chart; what draws it is fetched when the first one is looked at, and its room is kept until then. */
export function PlainChart(p: ComponentProps<typeof Canvas>) {
  return (
    <div style={{ height: p.height }}>
      <Drawn {...p} />
    </div>
  );
}
