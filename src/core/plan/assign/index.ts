/** From needs to pins: capability, prices, the exact solver, clashing cores, the LP text, and the hook-ups around it. */
export * from "./assign";
export * from "./capability";
export * from "./companions";
export * from "./hookups";
export * from "./problem";
export * from "./collect";
export * from "./solver";
export * from "./lp";
export * from "./words";
export * from "./chain";
export * from "./cell";
export * from "./lattice";
export * from "./move";
export * from "./alternatives";
export * from "./refresh";
export { WEIGHTS } from "./weights";
