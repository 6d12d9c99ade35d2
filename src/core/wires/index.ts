/** Wires by hand: points found by what people call them, wires made, cut and interrupted, and told before what that brings. */
export * from "./points";
export * from "./acts";
export * from "./between";
export * from "./consequences";
export * from "./built";
export * from "./given";
export * from "./pinmap";
export * from "./table";
export * from "./ask";
export type { WireAsk } from "./ask-schema";
