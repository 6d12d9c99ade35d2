import { LANE_FULL, LANE_SHIFT } from "./lanes";
import { each, must, read, wait, work, write } from "./steps";
import type { Device, DeviceKind, Step } from "./types";

/** Its clock is 25 MHz; all outputs have one rate, 25 MHz / 4096 / (prescale + 1): 50 Hz where a servo is, about 1 kHz else. */
const PRESCALE = { pulses: 121, shares: 5 };

const begin = (prescale: number): Step[] => [
  // Its clock is only set while it sleeps; then awake, counting registers up.
  write(0x00, 0x30),
  write(0xfe, prescale),
  write(0x00, 0x20),
  wait(1),
  read(1, 0xfe),
  must(`u8(0) == ${prescale}`),
  // All off, before its outputs are let out.
  write(0xfa, 0x00, 0x00, 0x00, 0x10),
];
const letOut: Step = { do: "pin", pin: "OE", level: 0 };

/** One output: all the time, none of it, or so many counts from the first on. */
const output = (which: string): Step[] => [
  work("off", `on == 0 ? ${LANE_FULL} : on & ${LANE_FULL - 1}`),
  write(`6 + ${which} * 4`, 0x00, `on >> 8 & 16`, "off & 255", "off >> 8"),
];

/** Nothing of the project hangs on it: all sixteen outputs alike, pulses of 1.0 to 2.0 ms for servos, none at rest. */
const alike: Device = {
  id: "module/pca9685",
  begin: [...begin(PRESCALE.pulses), letOut],
  read: [
    // 4096 steps in 20 ms.
    work("on", "want < 0 ? 0x1000 : ((1000 + want * 50 / 9) * 128 + 312) / 625"),
    write(0xfa, 0x00, 0x00, "on & 255", "on >> 8"),
  ],
  every: 50,
  out: [],
  takes: { word: "angle", unit: "deg", digits: 0, range: [0, 180], rest: -1 },
  proof: {
    kind: "seen",
    // Let go again at the end.
    show: [45, 135, 90, -1],
    question: "Did what hangs on its outputs move or change twice?",
    careful: "keep fingers and wires clear of what it moves,",
  },
};

/** Parts of the project hang on it: each output is told by itself, and all of them again after it was gone. */
const apart = (outs: number, rests: number, pulsed: boolean): Device => {
  const count = 32 - Math.clz32(outs);
  const lanes = Array.from({ length: count }, (_, k) => (rests & outs & (1 << k) ? LANE_FULL : 0));
  return {
    id: "module/pca9685",
    begin: [
      ...begin(pulsed ? PRESCALE.pulses : PRESCALE.shares),
      each("k", count, work("on", "lane(k)"), ...output("k")),
      letOut,
    ],
    read: [work("on", `want & ${2 ** LANE_SHIFT - 1}`), work("which", `want >> ${LANE_SHIFT}`), ...output("which")],
    every: 20,
    out: [],
    takes: { word: "output", unit: "", digits: 0, range: [0, 2 ** (LANE_SHIFT + 4) - 1], rest: lanes[0]! },
    lanes,
  };
};

/** PCA9685: sixteen outputs of one rate. */
export const pca9685: DeviceKind = {
  id: "module/pca9685",
  cases: [{}, { outs: 0b10_0001_0010, rests: 0b10_0000_0000, pulsed: true }, { outs: 0b1001, rests: 0b0001 }],
  of: ({ outs = 0, rests = 0, pulsed = false }) => (outs ? apart(outs, rests, pulsed) : alike),
};
