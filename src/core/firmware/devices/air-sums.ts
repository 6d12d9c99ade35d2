import type { Step } from "./types";

/**
 * What two air sensors of one family share, in whole numbers of 32 bits as their data sheets give it: the trimming words, T1 and P1
 * unsigned, all others signed, and what follows from `ut` and `up`, the readings of temperature and pressure.
 */
export const trimming: readonly Step[] = [
  { do: "let", name: "t1", is: "u16le(0)" },
  { do: "let", name: "t2", is: "s16le(2)" },
  { do: "let", name: "t3", is: "s16le(4)" },
  { do: "let", name: "p1", is: "u16le(6)" },
  ...[2, 3, 4, 5, 6, 7, 8, 9].map((n): Step => ({ do: "let", name: `p${n}`, is: `s16le(${4 + 2 * n})` })),
];

/** Temperature as `t_cC` and pressure as `p_Pa`; `fine` is kept for what depends on the temperature. */
export const temperatureAndPressure: readonly Step[] = [
  { do: "let", name: "up", is: "u24be(0) >> 4" },
  { do: "let", name: "ut", is: "u24be(3) >> 4" },
  // 0x80000 stands there until something was measured.
  { do: "must", holds: "ut != 0x80000" },
  { do: "let", name: "d", is: "(ut >> 4) - t1" },
  {
    do: "let",
    name: "fine",
    is: "(((ut >> 3) - (t1 << 1)) * t2 >> 11) + ((d * d >> 12) * t3 >> 14)",
  },
  { do: "let", name: "t_cC", is: "fine * 5 + 128 >> 8" },
  { do: "let", name: "h", is: "(fine >> 1) - 64000" },
  { do: "let", name: "q", is: "((h >> 2) * (h >> 2) >> 11) * p6 + (h * p5 << 1)" },
  { do: "let", name: "q2", is: "(q >> 2) + (p4 << 16)" },
  { do: "let", name: "s", is: "((p3 * ((h >> 2) * (h >> 2) >> 13) >> 3) + (p2 * h >> 1)) >> 18" },
  { do: "let", name: "s2", is: "(32768 + s) * p1 >> 15" },
  { do: "must", holds: "s2 != 0" },
  // Six thousand two hundred and fifty fold in two steps, so that nothing leaves 32 bits.
  { do: "let", name: "w", is: "(1048576 - up - (q2 >> 12)) * 1250" },
  { do: "let", name: "p", is: "w / s2 * 5 + w % s2 * 5 / s2" },
  { do: "let", name: "x", is: "p9 * ((p >> 3) * (p >> 3) >> 13) >> 12" },
  { do: "let", name: "y", is: "(p >> 2) * p8 >> 13" },
  { do: "let", name: "p_Pa", is: "p + (x + y + p7 >> 4)" },
];
