/** Where what an output is told stands in a number: which one, then how many counts of a period it is high. */
export const LANE_SHIFT = 13;
export const LANE_FULL = 4096;
/** Pulses come so often. */
export const LANE_PULSES_HZ = 50;
/** Counts of a pulse of so many microseconds: 4096 in 20 ms. */
export const laneOfPulse = (us: string) => `((${us}) * 128 + 312) / 625`;
/** Counts of a share that a byte gives: 255 is all of them. */
/** The same as a number. */
export const laneOfByte = (byte: number): number => (byte * 257 + 8) >> 4;
export const laneOfShare = (byte: string) => `((${byte}) * 257 + 8) >> 4`;

const list = (lanes: readonly number[]) => lanes.join(", ");

/** Outputs that are told one by one, in C++: at once where the part answers, else all of them when it does again. */
export const lanesInC = (id: string): string => `
static void __attribute__((unused)) ${id}_lane(uint8_t which, int16_t on) {
  if (${id}_lanes[which] == on) return;
  ${id}_lanes[which] = on;
  ${id}_want = (int32_t)which << ${LANE_SHIFT} | on;
  if (${id}_fresh) ${id}_turn();
  else ${id}_at = 0;
}`;
export const lanesStateInC = (id: string, lanes: readonly number[]): string =>
  `static int16_t ${id}_lanes[] = {${list(lanes)}};
`;
export const lanesInPython = (id: string, lanes: readonly number[]): string => `
${id}.lanes = [${list(lanes)}]`;
