import { count, read, work } from "./steps";
import type { Device } from "./types";

/** A receiver for remote controls: the key counts as long as it is held, -1 is none. */
export const irReceiver: Device = {
  id: "module/ir-receiver-38k",
  over: { kind: "infrared", pin: "OUT" },
  begin: [],
  read: [read(4), work("presses", "u8(0)"), work("key", "u8(1) ? u8(3) : -1"), work("remote", "u8(2)")],
  every: 50,
  out: [count("presses", "got", [0, 255]), count("key", "key", [-1, 255]), count("remote", "of", [0, 255])],
  proof: { kind: "watch", act: "press a key of a remote control towards it", by: 1, steady: true },
};
