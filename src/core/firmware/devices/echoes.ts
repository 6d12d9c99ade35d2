import { wait, work, write } from "./steps";
import type { Device } from "./types";

/** Distance by echo: 58 us there and back are a centimetre at 20 degrees; the next pulse only when the last has died away, 60 ms. */
const byEcho = (id: string, near_cm: number, far_cm: number): Device => ({
  id,
  over: { kind: "echo", out: "TRIG", back: "ECHO" },
  begin: [],
  read: [
    write(),
    // The farthest echo, and what the part holds its line high for when none comes.
    wait(40),
    { do: "read", n: 2 },
    work("us", "u16be(0)"),
    { do: "must", holds: `us >= ${58 * near_cm}` },
    { do: "must", holds: `us <= ${58 * far_cm}` },
    work("cm", "us / 58"),
  ],
  every: 60,
  // What stands before it may come and go.
  again: 60,
  out: [{ name: "cm", word: "", unit: "cm", digits: 0, room: [near_cm, far_cm] }],
});

export const echoes = [
  byEcho("module/hc-sr04", 2, 400),
  byEcho("module/ultrasonic-3v3", 2, 400),
  byEcho("module/ultrasonic-waterproof", 25, 400),
];
