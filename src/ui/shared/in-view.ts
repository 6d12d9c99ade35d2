import { startTransition, useCallback, useMemo, useState } from "react";

/** A rectangle of a drawing, in its own units. */
export interface Area {
  x: number;
  y: number;
  w: number;
  h: number;
}

const grown = (a: Area, by: number): Area => ({ x: a.x - by, y: a.y - by, w: a.w + 2 * by, h: a.h + 2 * by });
const holds = (a: Area, b: Area) => a.x <= b.x && a.y <= b.y && a.x + a.w >= b.x + b.w && a.y + a.h >= b.y + b.h;
const meets = (a: Area, b: Area) => a.x <= b.x + b.w && b.x <= a.x + a.w && a.y <= b.y + b.h && b.y <= a.y + a.h;

/** Drawn beyond the edges of what is seen, as a share of its larger side: room to push the drawing about. */
const BEYOND = 0.4;

export interface InView {
  /** Whether something of the drawing is to be drawn in full. */
  has(a: Area): boolean;
  /** What is seen by now, and in how many pixels a unit. */
  seen(a: Area, pixels: number): void;
}

/**
 * Which part of a large drawing is worth its words: what is seen and some room around it. `first`: what will be looked at before
 * anything is known, or null to draw all of it always; `reach`: room around that, drawing units; `least`: pixels a unit below which no
 * word can be read.
 */
export function useInView(first: Area | null, reach: number, least: number): InView {
  const [drawn, setDrawn] = useState<Area | "too small" | null>(null);
  const seen = useCallback(
    (now: Area, pixels: number) => {
      setDrawn((was) => {
        if (pixels < least) return "too small";
        // Held already, and not so much more than needed that every edit pays for it.
        if (was && was !== "too small" && holds(was, now) && was.w < 2.5 * now.w) return was;
        return grown(now, BEYOND * Math.max(now.w, now.h));
      });
    },
    [least],
  );
  return useMemo(() => {
    const area = first && (drawn ?? grown(first, reach));
    return {
      has: (a: Area) => !area || (area !== "too small" && meets(area, a)),
      seen: (a: Area, pixels: number) => startTransition(() => seen(a, pixels)),
    };
  }, [drawn, first, reach, seen]);
}
