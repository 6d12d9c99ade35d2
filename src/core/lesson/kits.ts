import { partsList } from "../build";
import type { Circuit } from "../circuit";
import type { KitContents } from "./types";

/** What lies in the box of each bench: counted, boards and modules first, wires of a colour together. */
export function kitsOf(c: Circuit, benches: number): KitContents[] {
  const lines = new Map<string, number>();
  for (const b of partsList(c)) {
    const wire = b.part === "wire";
    const what = wire ? `${b.name.toLowerCase()}, ${b.value}` : [b.name, b.value].filter(Boolean).join(", ");
    lines.set(what, (lines.get(what) ?? 0) + b.quantity);
  }
  const list = [...lines].map(([what, number]) => ({ number, what }));
  return Array.from({ length: benches }, (_, i) => ({ bench: i + 1, lines: list }));
}
