import type { Device } from "./types";

/** AS5600: the angle counts only while a magnet is seen; 4096 counts a turn. */
export const as5600: Device = {
  id: "module/as5600",
  begin: [],
  read: [
    { do: "read", from: 0x0b, n: 1 },
    { do: "must", holds: "u8(0) & 0x20" },
    { do: "read", from: 0x0e, n: 2 },
    { do: "let", name: "angle_d", is: "(u16be(0) & 0x0FFF) * 3600 / 4096" },
  ],
  every: 50,
  out: [{ name: "angle_d", word: "", unit: "deg", digits: 1, room: [0, 3599] }],
};
