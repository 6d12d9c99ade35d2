/** Saving pins: ways to connect many lights, keys, digits or sensors, compared, explained and put into a project. */
export * from "./addresses";
export * from "./ghosts";
export * from "./compare";
export * from "./grid";
export * from "./resistor";
export * from "./apply";
export type { Ask, PartCount, Want, Way } from "./methods";
