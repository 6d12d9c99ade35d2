import { work } from "./steps";
import type { DeviceKind, Step } from "./types";

/** Inputs against ground, one conversion, 128 a second, no comparator; full scale 4.096 V, or 6.144 V where the inputs can go higher. */
const MUX = [0b100, 0b101, 0b110, 0b111];
const NARROW = { pga: 0b001, mV: "s16be(0) / 8", most_mV: 4096 };
const WIDE = { pga: 0b000, mV: "s16be(0) * 3 / 16", most_mV: 6144 };
const input = (n: number, range: typeof NARROW): Step[] => [
  { do: "write", bytes: [0x01, 0x80 | (MUX[n]! << 4) | (range.pga << 1) | 1, 0x83] },
  // 1/128 s, up to 10 % longer: a bit tells when it is done.
  { do: "until", read: { from: 0x01, n: 2 }, holds: "u8(0) & 128", every: 4, most: 5 },
  { do: "read", from: 0x00, n: 2 },
  work(`a${n}_mV`, range.mV),
];

/** ADS1115: its four inputs one after the other, 0.125 mV a count, 0.1875 mV on 5 V. */
export const ads1115: DeviceKind = {
  id: "module/ads1115",
  cases: [{}, { supply_mV: 5000 }],
  of({ supply_mV = 0 }) {
    // No input goes above the supply: what is more than the narrow range needs the wide one.
    const range = supply_mV > NARROW.most_mV ? WIDE : NARROW;
    return {
      id: "module/ads1115",
      begin: [],
      read: [0, 1, 2, 3].flatMap((n) => input(n, range)),
      every: 100,
      out: [0, 1, 2, 3].map((n) => ({
        name: `a${n}_mV`,
        word: "",
        unit: "",
        digits: 3,
        shown: 2,
        room: [-300, range.most_mV],
      })),
    };
  },
};
