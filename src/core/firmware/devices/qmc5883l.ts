import type { Device, Quantity } from "./types";

const field = (axis: string): Quantity => ({
  name: `${axis}_mG`,
  word: axis,
  unit: "",
  digits: 3,
  shown: 2,
  room: [-8000, 8000],
});

/** QMC5883L: set/reset period as recommended, continuous at 200 a second, 8 gauss full scale; 3000 counts a gauss. */
export const qmc5883l: Device = {
  id: "module/qmc5883l",
  begin: [
    { do: "write", bytes: [0x0b, 0x01] },
    { do: "write", bytes: [0x09, 0x1d] },
  ],
  read: [
    { do: "until", read: { from: 0x06, n: 1 }, holds: "u8(0) & 0x01", every: 5, most: 5 },
    { do: "read", from: 0x00, n: 6 },
    { do: "let", name: "x_mG", is: "s16le(0) / 3" },
    { do: "let", name: "y_mG", is: "s16le(2) / 3" },
    { do: "let", name: "z_mG", is: "s16le(4) / 3" },
  ],
  every: 200,
  out: [field("x"), field("y"), field("z")],
};
