"use client";
import type { RemarkAt } from "@/core/project";

let heard: ((at: RemarkAt) => void) | null = null;
let waiting: RemarkAt | null = null;

/** Opens the form for a remark about a place, wherever that was asked for. */
export function askRemark(at: RemarkAt) {
  if (heard) heard(at);
  else waiting = at;
}

/** Whoever shows the form listens here; what was asked before it was there comes at once. */
export function onRemark(f: (at: RemarkAt) => void): () => void {
  heard = f;
  if (waiting) f(waiting);
  waiting = null;
  return () => {
    if (heard === f) heard = null;
  };
}
