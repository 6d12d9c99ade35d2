import type { Quantity } from "./types";

/** What many parts give, so that it is called and judged alike everywhere. */
export const celsius: Quantity = { name: "t_cC", word: "", unit: "C", digits: 2, shown: 1, room: [-4000, 8500] };
export const humidity: Quantity = { name: "rh_c", word: "", unit: "%", digits: 2, shown: 0, room: [0, 10000] };
export const pressure: Quantity = { name: "p_Pa", word: "", unit: "hPa", digits: 2, shown: 0, room: [30_000, 110_000] };
export const lux: Quantity = { name: "lux", word: "", unit: "lx", digits: 0, room: [0, 120_000] };
const mg = (axis: string): Quantity => ({
  name: `${axis}_mg`,
  word: axis,
  unit: "",
  digits: 3,
  shown: 2,
  room: [-2100, 2100],
});
/** Acceleration along three axes in thousandths of the earth's pull. */
export const acceleration = [mg("x"), mg("y"), mg("z")];
const clock = (name: string, most: number): Quantity => ({
  name,
  word: "",
  unit: "",
  digits: 0,
  room: [0, most],
  ...(name !== "hour" && { after: ":" }),
});
/** The time of a clock. */
export const timeOfDay = [clock("hour", 23), clock("minute", 59), clock("second", 59)];
