import { driverOf, leftOut } from "./drivers";
import type { DriverPart, Proof } from "./types";

/** What it takes to know that a part works; a part without a program of its own can't be proven by one. */
export const proofOf = (p: DriverPart): Proof =>
  driverOf(p)?.proof?.(p) ??
  (driverOf(p) ? { kind: "test" } : { kind: "unproven", why: leftOut(p)?.why ?? "no program of its own yet" });
