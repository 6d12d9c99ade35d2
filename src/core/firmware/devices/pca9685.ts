import { must, read, wait, work, write } from "./steps";
import type { Device } from "./types";

/** PCA9685: 50 Hz (25 MHz / 4096 / 122), all sixteen outputs alike; pulses of 1.0 to 2.0 ms for servos, none at rest. */
export const pca9685: Device = {
  id: "module/pca9685",
  begin: [
    // Its clock is only set while it sleeps; then awake, counting registers up.
    write(0x00, 0x30),
    write(0xfe, 121),
    write(0x00, 0x20),
    wait(1),
    read(1, 0xfe),
    must("u8(0) == 121"),
    // All off, before its outputs are let out.
    write(0xfa, 0x00, 0x00, 0x00, 0x10),
    { do: "pin", pin: "OE", level: 0 },
  ],
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
