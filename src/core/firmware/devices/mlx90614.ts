import type { Device, Quantity, Step } from "./types";

const word = (from: number, name: string): Step[] => [
  { do: "read", from, n: 3 },
  // The top bit is the chip's error flag.
  { do: "must", holds: "(u8(1) & 0x80) == 0" },
  { do: "let", name, is: "u16le(0) * 2 - 27315" },
];
const degrees = (name: string, word: string, room: [number, number]): Quantity => ({
  name,
  word,
  unit: "C",
  digits: 2,
  shown: 1,
  room,
});

/** MLX90614: what it looks at and its own temperature, 0.02 K a count. */
export const mlx90614: Device = {
  id: "module/mlx90614",
  begin: [],
  read: [...word(0x07, "seen_cC"), ...word(0x06, "own_cC")],
  every: 500,
  out: [degrees("seen_cC", "", [-7000, 38_000]), degrees("own_cC", "own", [-4000, 12_500])],
};
