/** Volts and amperes of the whole circuit in every state, at the worst corner of its tolerances. */
export { mostOf, solveCircuit, type Extreme, type Flow, type NetVolts, type PinCurrent, type Solved } from "./solved";
export type { Way } from "./look";
export { levelPairs, type LevelVerdict } from "./pairs";
export type { Driver, State } from "./model";
export { ledPaths, type LedPath, type PathEnd } from "./leds";
export { drawsOf } from "./draws";
export { dice } from "./random";
export { whileOff, type IntoDead } from "./off";
export { driveOf, type Drive } from "./drive";
export { restOf, type Rest } from "./rest";
