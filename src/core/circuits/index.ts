/** Small circuit sums, each usable by itself: LED resistor, divider, resistor networks. */
export * from "./nodal";
export * from "./divider";
export * from "./led";
