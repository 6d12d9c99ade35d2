/** The supply tree: voltages from sources through regulators to rails, currents back up, limits, heat, wires, batteries. */
export * from "./tree";
export * from "./at";
export * from "./sources";
export * from "./pushes";
export * from "./heat";
export * from "./needs";
export * from "./wires";
export * from "./way";
export * from "./battery";
export * from "./cold";
export * from "./budget";
