import type { DeviceProof } from "./types";

/** A number after the other in the first row, letters in the others. */
export const letters = {
  kind: "seen",
  show: [12_345_678, -42, 0],
  question: "Did its first row show 12345678, then -42, then 0, and the others letters?",
} satisfies DeviceProof;
