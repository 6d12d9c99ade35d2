/** Projects that the cases of several rules are made of. */
import { catalogue } from "../../testing";
import type { Part } from "../../parts/catalogue";

/** A part of the person's own, made from a shipped one. */
export const ownPart = (from: string, id: string, change: (p: Part) => Partial<Part>): Part => {
  const base = catalogue.get(from)!;
  return { ...base, id, ...change(base) };
};
