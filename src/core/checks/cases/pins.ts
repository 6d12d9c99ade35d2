/** Projects that the cases of several rules are made of. */
import { CABLE, led, make, moved, part, planned, USB } from "./build";

export const at = (board: object, pin: string, ohm = 390) =>
  make([board, USB, led("D1", ohm)], [CABLE, ["D1.A", `B1.${pin}`], ["D1.K", "B1.GND"]]);

export const soil = (board: object, pin: string) =>
  moved(planned([board, USB, part("M1", "module/soil-capacitive")]), "M1.AOUT", `B1.${pin}`);
