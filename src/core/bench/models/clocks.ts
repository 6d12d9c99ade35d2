import { registers } from "./registers";
import type { Model, World } from "./types";

const digits = (v: number) => (Math.floor(v / 10) << 4) | (v % 10);
const TIMES: World[] = [
  { hour: 7, minute: 45, second: 38 },
  { hour: 23, minute: 9, second: 51 },
];
const clock = (part: string, first: number, top: number, stands: boolean): Model => ({
  part,
  worlds: TIMES,
  within: { hour: 0, minute: 0, second: 0 },
  make(w) {
    // A new DS1307 stands still, with the top bit of its seconds set; at the time that it shows it goes on from there.
    let runs = !stands;
    let hurt = false;
    return registers({
      wrote(r, v) {
        if (r === first) {
          runs = !(v & 0x80);
          hurt = (v & 0x7f) !== digits(w.second!);
        } else hurt = true;
        return true;
      },
      value(r) {
        const wrong = hurt || !runs;
        if (r === first) return digits(wrong && hurt ? 0 : w.second!) | (runs ? top : 0x80);
        if (r === first + 1) return digits(wrong ? 0 : w.minute!);
        return r === first + 2 ? digits(wrong ? 0 : w.hour!) : 0x11;
      },
    });
  },
});

/** DS3231 and DS1307: seconds in register 0. PCF8563: in register 2, its top bit set after the cell was taken out. */
export const ds3231 = clock("module/ds3231", 0, 0, false);
export const ds1307 = clock("module/ds1307", 0, 0, true);
export const pcf8563 = clock("module/pcf8563", 2, 0x80, false);
