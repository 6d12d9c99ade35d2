import type { Device, Step } from "./types";

/** The setting that starts one conversion of an input against ground: 4.096 V full scale, 128 a second, no comparator. */
const MUX = [0xc3, 0xd3, 0xe3, 0xf3];
const input = (n: number): Step[] => [
  { do: "write", bytes: [0x01, MUX[n]!, 0x83] },
  // 1/128 s, up to 10 % longer.
  { do: "wait", ms: 9 },
  { do: "read", from: 0x00, n: 2 },
  { do: "let", name: `a${n}_mV`, is: "s16be(0) / 8" },
];

/** ADS1115: its four inputs one after the other, 0.125 mV a count. */
export const ads1115: Device = {
  id: "module/ads1115",
  begin: [],
  read: [0, 1, 2, 3].flatMap(input),
  every: 200,
  out: [0, 1, 2, 3].map((n) => ({ name: `a${n}_mV`, word: "", unit: "", digits: 3, shown: 2, room: [-300, 4100] })),
};
