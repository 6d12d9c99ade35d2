import costs from "./costs.json";

/** Bytes of flash and of RAM. */
export type Size = readonly [flash: number, ram: number];
type Program = "bringup" | "starter";
type Sizes = Record<Program, Size>;
/** What the programs of a target take with nothing, with any part that is talked to at all, for each way of talking, and for the first and each further piece of a part. */
export interface TargetCosts {
  base: Sizes;
  common: Sizes;
  ways: Record<string, Sizes>;
  parts: Record<string, { first: Sizes; more: Sizes }>;
}
export type Costs = Record<string, TargetCosts>;
export const COSTS = costs as unknown as Costs;
