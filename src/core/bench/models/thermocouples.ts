import { onSpi } from "./on-spi";
import { high } from "./registers";
import type { Model } from "./types";

const listed = (bytes: readonly number[]) =>
  onSpi({ reply: (heard) => bytes[heard.length] ?? 0, end: () => undefined });

/** MAX31855: 14 bits of 0.25 degrees, a 0, fault, 12 bits of 0.0625 degrees, a 0, three fault bits. */
export const max31855: Model = {
  part: "module/max31855",
  worlds: [
    { t_C: 23.25, chip_C: 21.8125 },
    { t_C: -40.5, chip_C: 5.25 },
    { t_C: 1000.75, chip_C: 60.6875 },
    { t_C: -2.25, chip_C: -7.1875 },
  ],
  within: { t_C: 0.005, chip_C: 0.01 },
  make: (w) => {
    const t = Math.round(w.t_C! / 0.25) & 0x3fff;
    const chip = Math.round(w.chip_C! / 0.0625) & 0xfff;
    return listed([...high(t << 2), ...high(chip << 4)]);
  },
};

/** MAX6675: a 0, 12 bits of 0.25 degrees, open thermocouple, a 0, and a bit that is let go. */
export const max6675: Model = {
  part: "module/max6675",
  worlds: [{ t_C: 21.75 }, { t_C: 900.5 }, { t_C: 3.5 }],
  within: { t_C: 0.005 },
  make: (w) => listed(high((Math.round(w.t_C! / 0.25) << 3) | 1)),
};
