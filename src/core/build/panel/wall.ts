import type { Wall } from "../../project";

/** A box from outside, millimetres. */
interface BoxSize {
  w_mm: number;
  h_mm: number;
  d_mm: number;
}

/** Width and height of a wall as it is looked at, and how deep the box is behind it. */
export function wallSize(b: BoxSize, wall: Wall): { w: number; h: number; deep: number } {
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
