import type { Device, Step } from "./types";
import { timeOfDay } from "./quantities";

const time = (from: number): Step[] => [
  { do: "read", from, n: 3 },
  { do: "let", name: "second", is: "bcd(0) % 80" },
  { do: "let", name: "minute", is: "bcd(1) % 80" },
  { do: "let", name: "hour", is: "bcd(2) % 40" },
];

/** DS3231: seconds, minutes, hours in decimal digits. */
export const ds3231: Device = { id: "module/ds3231", begin: [], read: time(0x00), every: 500, out: timeOfDay };

/** DS1307: as new its oscillator stands still; clearing the top bit of the seconds starts it and leaves them as they are. */
export const ds1307: Device = {
  id: "module/ds1307",
  begin: [
    { do: "read", from: 0x00, n: 1 },
    { do: "write", bytes: [0x00, "u8(0) & 0x7F"] },
  ],
  read: time(0x00),
  every: 500,
  out: timeOfDay,
};

/** PCF8563: the top bit of the seconds says that the time is not to be trusted, and is no second. */
export const pcf8563: Device = { id: "module/pcf8563", begin: [], read: time(0x02), every: 500, out: timeOfDay };
