/** Small circuit sums, each usable by itself: LED resistor, divider, transistor stages, filters and buses. */
export * from "./divider";
export * from "./led";
export * from "./transistor";
export * from "./i2c";
export * from "./baud";
export * from "./rc";
export * from "./sensor";
export * from "./opto";
