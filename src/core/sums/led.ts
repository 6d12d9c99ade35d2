import { ledResistor } from "../circuit/formulas";
import { formatOhm, formatSI, formatV } from "../quantity";
import { ground, pin, rail, two, wire, type Item } from "./drawing";
import type { Sum } from "./types";

const RATINGS = [0.125, 0.25, 0.5, 1, 2, 3, 5];
/** The next usual power rating with twice the heat as margin, watts. */
export const ratingFor = (W: number) => RATINGS.find((r) => r >= 2 * W) ?? Math.ceil(2 * W);

/** Lights in a row on a pin or a rail: the resistor that sets their current. */
export const ledSum: Sum = {
  id: "light",
  name: "Lights in a row and their resistor",
  says: "Series resistor for one light or several in a row, with its power rating.",
  does: "A light takes almost any current once its forward voltage is reached. The resistor takes the rest of the voltage, and so sets the current.",
  without: "The current is limited by nothing but the pin and the light: one of them dies, often both.",
  fields: [
    { key: "V", label: "Supply or pin voltage", unit: "V", value: 5, min: 1, max: 60 },
    { key: "Vf", label: "Forward voltage of one light", unit: "V", value: 2, min: 0.8, max: 5 },
    { key: "n", label: "Lights in the row", unit: "", value: 1, min: 1, max: 20, whole: true },
    { key: "I", label: "Wanted current", unit: "A", value: 0.008, min: 0.0002, max: 3 },
    { key: "pin_ohm", label: "Resistance of the driving pin (0 for a rail)", unit: "Ω", value: 0, min: 0, max: 300 },
  ],
  compute(v, owned) {
    const { V, Vf, n, I, pin_ohm } = v as Record<string, number>;
    const left = V! - n! * Vf!;
    const r = ledResistor({ V: V!, Vf: Vf!, n: n!, I: I!, pin_ohm: pin_ohm!, owned: owned.resistors_ohm });
    if (!r)
      return {
        ok: false,
        message: `${n} light${n === 1 ? "" : "s"} of ${formatV(Vf!)} want ${formatV(n! * Vf!)}; ${formatV(V!)} leaves nothing for the resistor. Take fewer in a row or a higher supply.`,
      };
    const warnings: string[] = [];
    const least = Math.max(0.5, V! * 0.2);
    if (left < least)
      warnings.push(
        `Only ${formatV(left)} is left for the resistor, less than ${formatV(least)}: brightness will differ from piece to piece.`,
      );
    if (pin_ohm! > 0 && r.current > 0.02)
      warnings.push("More than 20 mA from a pin: look up what that pin may give, or use a transistor.");
    const items: Item[] = [
      pin_ohm ? pin(1, 1, "pin") : rail(1, 1, formatV(V!)),
      wire([1, 1], [2, 1]),
      two("resistor", [2, 1], [5, 1], "R", formatOhm(r.ohm)),
      two("led", [5, 1], [8, 1], n! > 1 ? `${n} lights` : "light", formatV(Vf!)),
      wire([8, 1], [9, 1], [9, 2]),
      ground(9, 2),
    ];
    return {
      ok: true,
      answers: [
        { key: "ohm", label: "Resistor", value: r.ohm, unit: "Ω", main: true },
        { key: "current", label: "Current with it", value: r.current, unit: "A" },
        { key: "W", label: "Heat in it", value: r.W, unit: "W" },
        { key: "rating", label: "Take a rating of", value: ratingFor(r.W), unit: "watt" },
      ],
      steps: [
        `R = (V − n·Vf − I·Rpin) / I = (${V} − ${n}·${Vf} − ${formatSI(I!, "A")}·${pin_ohm} Ω) / ${formatSI(I!, "A")} = ${formatOhm(r.exact)}`,
        `next value up: ${formatOhm(r.ohm)}`,
        `I = (${V} − ${n}·${Vf}) / (${formatOhm(r.ohm)} + ${pin_ohm} Ω) = ${formatSI(r.current, "A")}`,
        `P = I²·R = ${formatSI(r.W, "W")}; twice that for a cool resistor`,
      ],
      warnings,
      drawing: {
        width: 10,
        height: 4,
        says: `From ${pin_ohm ? "the pin" : "the supply"} through ${formatOhm(r.ohm)} and ${n} light${n === 1 ? "" : "s"} to ground; the light's long leg faces the resistor.`,
        items,
      },
    };
  },
};
