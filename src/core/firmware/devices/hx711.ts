import { must, read, work } from "./steps";
import type { Device, DeviceKind, Wired } from "./types";

/** HX711, channel A with gain 128 (one clock more): 24 bits in two's complement. 400 ms until it has settled. */
const plain: Device = {
  id: "module/hx711",
  over: { kind: "clocked", data: "DT", clock: "SCK", more: 1 },
  begin: [],
  read: [
    { do: "until", read: { n: 1 }, holds: "u8(0) == 1", every: 10, most: 60 },
    read(3),
    work("raw", "(u24be(0) ^ 0x800000) - 0x800000"),
    // A wire at ground, and one that is let go.
    must("raw != 0 & raw != -1"),
  ],
  every: 100,
  // Its ends are what it gives when the cell is missing or broken.
  out: [{ name: "raw", word: "load", unit: "", digits: 0, room: [-8_388_607, 8_388_606] }],
  proof: { kind: "watch", act: "press on the load cell and hold", by: 5000 },
};

/** Steps of a gram that a reading is divided in before it becomes one: 24 bits and these stay within 32. */
const PARTS = 64;
/** From so many grams on they are told whole, below by tenths. */
const HEAVY_G = 1000;

/** What it told with nothing on it and with a known weight, and that weight; null: it was not calibrated. */
function calibration({ options: o }: Wired) {
  const [zero, loaded, weight] = [o.zero, o.loaded, o.weight_g].map((v) => Number(v ?? 0)) as [number, number, number];
  const digits = weight >= HEAVY_G ? 0 : 1;
  // Counts of a gram, or of a tenth of one, in those parts.
  const counts = Math.round(((loaded - zero) * PARTS) / (weight * 10 ** digits || 1));
  return weight > 0 && counts !== 0 ? { zero, counts, weight, digits } : null;
}

/** Calibrated it tells grams. */
export const hx711: DeviceKind = {
  id: "module/hx711",
  cases: [
    {},
    { options: { zero: 84_213, loaded: 512_345, weight_g: 2000 } },
    { options: { zero: -1200, loaded: -181_200, weight_g: 100 } },
  ],
  of(w): Device {
    const k = calibration(w);
    if (!k) return plain;
    const name = k.digits ? "m_dg" : "m_g";
    const [most, by] = [10 * k.weight * 10 ** k.digits, Math.max(1, Math.round((k.weight * 10 ** k.digits) / 20))];
    return {
      ...plain,
      read: [...plain.read, work(name, `(raw - ${k.zero}) * ${PARTS} / ${k.counts}`)],
      out: [{ name, word: "", unit: "g", digits: k.digits, room: [-most, most] }],
      proof: { kind: "watch", act: "press on the load cell and hold", by },
    };
  },
};
