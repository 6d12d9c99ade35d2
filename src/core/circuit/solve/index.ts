/** Volts and amperes of the whole circuit in every state, at the worst corner of its tolerances. */
export {
  mostOf,
  solveCircuit,
  type Extreme,
  type Flow,
  type NetVolts,
  type PinCurrent,
  type Solved,
  type Way,
} from "./solved";
export type { Driver, State } from "./model";
export { ledPaths, type LedPath, type PathEnd } from "./leds";
export { drawsOf } from "./draws";
export { dice } from "./random";
