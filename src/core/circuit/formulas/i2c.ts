/** The three speeds of UM10204 table 10: clock, rise time, how strong a low must be, bus capacitance. */
export const I2C_SPEEDS = [
  { clock_Hz: 100_000, rise_s: 1000e-9, C_F: 400e-12, sink_A: 0.003 },
  { clock_Hz: 400_000, rise_s: 300e-9, C_F: 400e-12, sink_A: 0.003 },
  { clock_Hz: 1_000_000, rise_s: 120e-9, C_F: 550e-12, sink_A: 0.02 },
] as const;
/** From 0.3·V to 0.7·V an RC edge takes ln(0.7/0.3) = 0.8473 time constants (UM10204, section 7.1). */
export const RISE = Math.log(0.7 / 0.3);
const VOL_V = 0.4;

/** The speed class that a clock falls into: the slowest that reaches it. */
export const i2cSpeed = (clock_Hz: number) => I2C_SPEEDS.find((s) => clock_Hz <= s.clock_Hz) ?? I2C_SPEEDS.at(-1)!;

/** Rise time of a bus line, seconds: 0.8473·R·C. */
export const i2cRise = (ohm: number, C_F: number) => RISE * ohm * C_F;

export interface PullUpWindow {
  min_ohm: number;
  max_ohm: number;
}

/**
 * Between which values a pull-up of an I2C line must lie: Rmin = (V − 0.4 V) / 3 mA, so that a part can pull it low;
 * Rmax = t_r / (0.8473·C), so that it rises in time. Volts (highest), farads, hertz. UM10204, section 7.1.
 */
export function pullUpWindow(V: number, C_F: number, clock_Hz: number, sink_A = 0.003): PullUpWindow {
  return { min_ohm: (V - VOL_V) / sink_A, max_ohm: i2cSpeed(clock_Hz).rise_s / (RISE * C_F) };
}

/** One metre of loose wire beside its ground, a breadboard row, a pin whose data says nothing. Farads. */
export const WIRE_F_PER_M = 100e-12;
export const BREADBOARD_F = 5e-12;
export const PIN_F = 10e-12;
