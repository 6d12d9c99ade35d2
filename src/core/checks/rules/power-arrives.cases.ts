import { AVR, CABLE, make, part, USB, type Case } from "../cases/build";

const arm = (ref: string, id: string, F: number) => ({
  ...part(ref, id, { wire_awg: 20 }, { bulkCapacitor: { F } }),
  wire_cm: 100,
});

/** Two servos at the ends of a metre of wire each: the large one fed at the small one's plug, or by a wire of its own. */
const arms = (second: string) =>
  make(
    [
      AVR,
      USB,
      part("S2", "supply/bench", { output_V: 5.1, limit_mA: 5000 }),
      arm("M1", "module/servo-small", 470e-6),
      arm("M2", "module/servo-large", 1e-3),
    ],
    [
      CABLE,
      ["S2.-", "B1.GND"],
      ["M1.VCC", "S2.+"],
      ["M1.GND", "S2.-"],
      ["M2.VCC", second],
      ["M2.GND", "S2.-"],
      ["M1.SIG", "B1.D9"],
      ["M2.SIG", "B1.D10"],
    ],
  );

export const arrivesCases: Case[] = [
  {
    rule: "power.arrives",
    severity: "risk",
    says: "a large servo fed at the plug of a small one, a metre further on",
    bad: () => arms("M1.VCC"),
    near: () => arms("S2.+"),
  },
];
