import { registers } from "./registers";
import type { Model } from "./types";

/** INA219 over 0.1 ohm, left powered down at 40 mV full scale. */
export const ina219: Model = {
  part: "module/ina219",
  worlds: [
    { v_V: 5.02, i_mA: 143 },
    { v_V: 12.08, i_mA: -1710 },
  ],
  within: { v_V: 0.005, i_mA: 0.2 },
  make(w) {
    let since = Infinity;
    return registers({
      width: 2,
      left: { 0: 0x0198 },
      wrote(r, v, _f, now) {
        if (r === 0) since = (v & 7) === 7 ? now : Infinity;
        return true;
      },
      value(r, f, now) {
        if (r === 0) return f.get(0)!;
        if (now - since < 1.064) return 0;
        const config = f.get(0)!;
        const most = 4000 * 2 ** ((config >> 11) & 3);
        const shunt = Math.max(-most, Math.min(most, Math.round(w.i_mA! * 10)));
        if (r === 1) return shunt < 0 ? shunt + 65536 : shunt;
        const bus = Math.round(Math.min(w.v_V!, config & 0x2000 ? 32 : 16) / 0.004);
        return r === 2 ? (bus << 3) | 2 : 0;
      },
    });
  },
};
