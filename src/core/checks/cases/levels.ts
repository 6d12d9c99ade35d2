/** Projects that the cases of several rules are made of. */
import { CABLE, make, RP, planned, part, R, USB, CHARGER } from "./build";

export const hall = (ohm: number) =>
  make(
    [RP, USB, part("M1", "module/a3144", {}, { pullUp: null }), R("R1", ohm), R("R2", 10_000)],
    [
      CABLE,
      ["M1.VCC", "B1.VBUS"],
      ["M1.GND", "B1.GND"],
      ["M1.OUT", "R1.1"],
      ["R1.2", "B1.GP6"],
      ["R2.1", "B1.GP6"],
      ["R2.2", "B1.3V3"],
    ],
  );

export const echo = (board: object) => planned([board, USB, part("M1", "module/hc-sr04")]);

export const one = (board: object, id: string) => planned([board, CHARGER, part("M1", id)]);
