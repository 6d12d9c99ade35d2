/** From the project to the circuit: companions inserted, nets with drivers and receivers, levels and currents. */
export * from "./types";
export * from "./expand";
export { buildNets, voltName } from "./build";
export { CLAMP_V, clampsToSupply, dropAt, INJECTION_MA, levelVerdicts, type LevelVerdict } from "./levels";
export { groundOf, isolationBroken } from "./grounds";
export * from "./looks";
