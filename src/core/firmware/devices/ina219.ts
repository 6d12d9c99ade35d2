import type { Device } from "./types";

/** INA219 with 0.1 ohm: 32 V, 320 mV, 12 bits, continuous (its power-on setting, written all the same); 532 us a conversion. */
export const ina219: Device = {
  id: "module/ina219",
  begin: [
    { do: "write", bytes: [0x00, 0x39, 0x9f] },
    { do: "wait", ms: 2 },
  ],
  read: [
    { do: "read", from: 0x01, n: 2 },
    // 10 uV a count over 0.1 ohm: 0.1 mA.
    { do: "let", name: "i_dmA", is: "s16be(0)" },
    { do: "read", from: 0x02, n: 2 },
    { do: "let", name: "v_mV", is: "(u16be(0) >> 3) * 4" },
  ],
  every: 500,
  out: [
    { name: "v_mV", word: "", unit: "V", digits: 3, shown: 2, room: [0, 26_000] },
    { name: "i_dmA", word: "", unit: "mA", digits: 1, room: [-32_000, 32_000] },
  ],
};
