/**
 * What an assignment costs, in one table. The unit is arbitrary; only the proportions matter. Order of weight:
 * hazard of the pin, spending a rare capability, wires crossing to the other side, unusual bus pins, moving a wire.
 */
export const WEIGHTS = {
  hazard: { console: 60, strapping: 50, onboard: 25, bootlog: 25, programming: 15, "adc-radio": 5, "input-only": 0 },
  /** Shared out over the pins that have the capability: fewer pins, higher price for each. */
  scarcity: { adc: 48, dac: 48, interrupt: 24, pwm: 24, i2c: 36, spi: 30, uart: 30, touch: 12 },
  /** No single capability costs more than this, however rare. */
  scarcityMost: 18,
  side: 6,
  unusualBus: 8,
  preference: 10,
  moved: 14,
} as const;
