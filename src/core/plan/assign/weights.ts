/**
 * What an assignment costs, in one table. The unit is arbitrary; only the proportions matter. Order of weight: what may
 * harm (volts that the pin does not take), hazards of the pin, software in place of a controller, pins behind another chip,
 * spending a rare capability, moving a wire, wishes, unusual bus pins, wires crossing to the other side or out of order.
 */
export const WEIGHTS = {
  level: 90,
  hazard: {
    console: 60,
    strapping: 50,
    pad: 40,
    onboard: 25,
    bootlog: 25,
    programming: 15,
    "adc-radio": 5,
    "input-only": 0,
  },
  software: 30,
  /** Below `moved`: what somebody put behind a chip stays there. */
  behind: 12,
  /** A line on a channel of a bus multiplexer. */
  channel: 8,
  /** Shared out over the pins that have the capability: fewer pins, higher price for each. */
  scarcity: { adc: 48, dac: 48, interrupt: 24, pwm: 24, i2c: 36, spi: 30, uart: 30, can: 12, touch: 12 },
  /** No single capability costs more than this, however rare. */
  scarcityMost: 18,
  moved: 14,
  preference: 10,
  unusualBus: 8,
  side: 6,
  /** A line of a parallel group, an encoder or a matrix that is out of its place in the row. */
  order: 3,
} as const;
