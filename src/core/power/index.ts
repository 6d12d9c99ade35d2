/** The supply tree: voltages from sources through regulators to rails, currents back up, limits. */
export * from "./tree";
