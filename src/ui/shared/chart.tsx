"use client";
import dynamic from "next/dynamic";
import { Suspense, type ComponentProps } from "react";
import type { PlainChart as Canvas } from "./chart-canvas";

const Drawn = dynamic(() => import("./chart-canvas").then((m) => m.PlainChart), { ssr: false, loading: () => null });

/** A chart; what draws it is fetched when the first one is looked at, and its room is kept until then. */
export function PlainChart(p: ComponentProps<typeof Canvas>) {
  return (
    <div style={{ height: p.height }}>
      <Suspense>
        <Drawn {...p} />
      </Suspense>
    </div>
  );
}
