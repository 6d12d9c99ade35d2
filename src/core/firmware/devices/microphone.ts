import { read, wait, work } from "./steps";
import type { Device, DeviceKind, Wired } from "./types";

/** INMP441: 24 bits in the half of its channel. How loud it is, as a share of all that its numbers reach, by hundredths of a percent. */
export const inmp441: DeviceKind = {
  id: "module/inmp441",
  cases: [{}, { options: { side: "right" } }],
  of: ({ options }: Wired): Device => ({
    id: "module/inmp441",
    over: { kind: "i2s", right: options.side === "right" },
    // Its first 85 ms after the clock began are nothing.
    begin: [wait(100)],
    // 2^24 in ten thousand parts.
    read: [read(3), work("loud_c", "u24be(0) / 1678")],
    every: 100,
    out: [{ name: "loud_c", word: "sound", unit: "%", digits: 2, room: [0, 10_000] }],
    proof: { kind: "watch", act: "clap beside it, again and again", by: 20 },
  }),
};
