import type { Wall } from "../../project";
import type { Panel } from ".";

/** Width and height of a wall as it is looked at, and how deep the box is behind it. */
export function wallSize(b: Pick<Panel, "w_mm" | "h_mm" | "d_mm">, wall: Wall): { w: number; h: number; deep: number } {
  const size = {
    front: [b.w_mm, b.h_mm, b.d_mm],
    back: [b.w_mm, b.h_mm, b.d_mm],
    left: [b.d_mm, b.h_mm, b.w_mm],
    right: [b.d_mm, b.h_mm, b.w_mm],
    top: [b.w_mm, b.d_mm, b.h_mm],
    bottom: [b.w_mm, b.d_mm, b.h_mm],
  }[wall] as [number, number, number];
  return { w: size[0], h: size[1], deep: size[2] };
}
