import type { Device, Quantity } from "./types";

const light = (name: string): Quantity => ({ name, word: name, unit: "", digits: 0, room: [1, 262_143] });

/** MAX30102: red and infrared, 100 a second, 18 bits, 7 mA each; the oldest sample of its queue, which may roll over. */
export const max30102: Device = {
  id: "module/max30102",
  begin: [
    { do: "write", bytes: [0x08, 0x10] },
    { do: "write", bytes: [0x0a, 0x27] },
    { do: "write", bytes: [0x0c, 0x24] },
    { do: "write", bytes: [0x0d, 0x24] },
    { do: "write", bytes: [0x09, 0x03] },
    { do: "wait", ms: 20 },
  ],
  read: [
    { do: "read", from: 0x07, n: 6 },
    { do: "let", name: "red", is: "u24be(0) & 0x3FFFF" },
    { do: "let", name: "infra", is: "u24be(3) & 0x3FFFF" },
  ],
  every: 100,
  out: [light("red"), light("infra")],
};
