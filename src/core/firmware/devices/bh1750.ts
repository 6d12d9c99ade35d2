import type { Device } from "./types";
import { lux } from "./quantities";

/** BH1750: power on, continuous measurement of 1 lx, 180 ms at most; 1.2 counts a lux. */
export const bh1750: Device = {
  id: "module/bh1750",
  begin: [
    { do: "write", bytes: [0x01] },
    { do: "write", bytes: [0x10] },
    { do: "wait", ms: 180 },
  ],
  read: [
    { do: "read", n: 2 },
    { do: "let", name: "lux", is: "u16be(0) * 10 / 12" },
  ],
  every: 500,
  out: [lux],
};
