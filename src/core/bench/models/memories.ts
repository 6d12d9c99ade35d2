import type { Model } from "./types";

/** AT24C32: two bytes of address, then data; another program has left its pointer elsewhere. It must not be written to. */
export const at24c32: Model = {
  part: "module/at24c32",
  worlds: [{ byte: 0x42 }, { byte: 0 }],
  within: { byte: 0 },
  make(w) {
    let at = 0x123;
    let spoilt = false;
    return {
      write(bytes) {
        if (bytes.length > 2) spoilt = true;
        if (bytes.length === 2) at = ((bytes[0]! << 8) | bytes[1]!) & 0xfff;
        return true;
      },
      read: (n) => Array.from({ length: n }, (_, i) => (spoilt ? 0xee : at + i === 0 ? w.byte! : 0xb5)),
    };
  },
};

/** TCA9548A: one byte, a bit for each branch; left open by another program. */
export const tca9548a: Model = {
  part: "module/tca9548a",
  worlds: [{ open: 0 }],
  within: { open: 0 },
  make() {
    let open = 0x06;
    return {
      write(bytes) {
        open = bytes.at(-1) ?? open;
        return true;
      },
      read: (n) => Array<number>(n).fill(open),
    };
  },
};

/** VL53L0X: one measurement of 33 ms after its start; its flag stays until it is cleared; 11 is a good one. */
export const vl53l0x: Model = {
  part: "module/vl53l0x",
  worlds: [{ far_mm: 123 }, { far_mm: 1480 }, { far_mm: 8190 }],
  within: { far_mm: 0 },
  make(w) {
    let pointer = 0;
    let done = Infinity;
    // An old result waits.
    let flag = true;
    let fresh = false;
    return {
      write(bytes, now) {
        pointer = bytes[0]!;
        if (bytes.length < 2) return true;
        if (pointer === 0x00 && bytes[1] === 0x01) {
          done = now + 33;
          fresh = false;
        }
        if (pointer === 0x0b && bytes[1]! & 1) flag = false;
        return true;
      },
      read(n, now) {
        if (now >= done) {
          flag = true;
          fresh = true;
          done = Infinity;
        }
        const file: Record<number, number> = { 0xc0: 0xee, 0x13: flag ? 4 : 0 };
        const far = fresh ? w.far_mm! : 77;
        file[0x14] = (far >= 8190 ? 4 : 11) << 3;
        file[0x1e] = far >> 8;
        file[0x1f] = far & 0xff;
        return Array.from({ length: n }, (_, i) => file[pointer + i] ?? 0x21);
      },
    };
  },
};
