/** From the project to the circuit: companions inserted, nets with drivers and receivers, levels and currents. */
export * from "./types";
export * from "./expand";
export { buildNets, voltName } from "./build";
export * from "./clamps";
export { groundOf, isolationBroken, separateGrounds } from "./grounds";
export * from "./looks";
