import type { Circuit } from "../../circuit";
import type { LessonLevel } from "../../project";
import { at, mA, nameOf, toldA, toldV, volts, type Asked, type Asker } from "./types";

/** Ohm's law at a light with its resistor in series, and what a second resistor would do. */
function lights(c: Circuit, level: LessonLevel): Asked[] {
  const seen = new Set<string>();
  return c.leds.flatMap((l): Asked[] => {
    if (!l.I || !l.V || l.R <= 0 || l.leds.length > 1 || seen.has(l.row)) return [];
    seen.add(l.row);
    const name = nameOf(c, l.ref);
    const [V, Vf, R] = [toldV(l.V.typ), toldV(l.Vf.typ), Math.round(l.R)];
    const pin = l.high.kind === "pin" || l.low.kind === "pin";
    const from = l.high.kind === "pin" ? "the pin" : "the supply";
    const left = toldV(V - Vf);
    if (left <= 0) return [];
    const I = left / R;
    const less = pin && mA(I) !== mA(l.I.typ) && l.I.typ < I;
    return [
      {
        id: `series ${l.ref}`,
        ask: at(
          level,
          `${volts(V)} come out of ${from}. The light ${name} keeps ${volts(Vf)} for itself. How many volts are left for the resistor?`,
          `${from[0]!.toUpperCase()}${from.slice(1)} gives ${volts(V)}, ${name} keeps ${volts(Vf)}, the rest is across ${R} Ω. The current is volts divided by ohms: how large is it?`,
          `${name} drops ${volts(Vf)} and stands in series with ${R} Ω at ${volts(V)}. Work out the current.${less ? ` The plan expects ${mA(l.I.typ)}: why is that less?` : ""}`,
        ),
        answer: at(
          level,
          `${volts(left)}.`,
          `About ${mA(I)}.`,
          less
            ? `${mA(I)}; the pin itself has some resistance, so that a little less than ${volts(V)} is left: ${mA(l.I.typ)}.`
            : `${mA(I)}.`,
        ),
        working: `${volts(V)} - ${volts(Vf)} = ${volts(left)}${level === "7-11" ? "" : `; ${volts(left)} / ${R} Ω = ${mA(I)}`}`,
      },
      {
        id: `twice ${l.ref}`,
        ask: at(
          level,
          `A second resistor like the first is put behind it, one after the other. Is ${name} brighter, darker or the same?`,
          `A second ${R} Ω is put in series with the first. What is the current now?`,
          `A second ${R} Ω is put in series with the first, then in parallel to it. Give the current for both.`,
        ),
        answer: at(
          level,
          "Darker: the current has to pass both.",
          `${2 * R} Ω together: about ${mA(left / (2 * R))}.`,
          `In series ${2 * R} Ω: ${mA(left / (2 * R))}. In parallel ${Math.round(R / 2)} Ω: ${mA((2 * left) / R)}${(2 * left) / R > l.max_A ? `, more than the ${mA(l.max_A)} that the light bears` : ""}.`,
        ),
        working: `series: R + R = ${2 * R} Ω; parallel: R / 2 = ${Math.round(R / 2)} Ω`,
      },
    ];
  });
}

/** Side by side on one supply: currents add up. */
function together(c: Circuit, level: LessonLevel): Asked[] {
  return c.power.limits
    .filter((l) => l.kind === "source" && l.loads.length > 1 && l.flow.typ > 0)
    .slice(0, 1)
    .map((l) => {
      const list = l.loads.filter((x) => x.flow.typ >= 0.0005);
      const sum = list.reduce((s, x) => s + toldA(x.flow.typ), 0);
      const left = l.limit_A - sum;
      const words = list.map((x) => `${x.label} ${mA(x.flow.typ)}`).join(", ");
      return {
        id: `together ${l.id}`,
        ask: at(
          level,
          `All parts hang side by side on ${nameOf(c, l.ref)}. Does it give more when there are more parts, or less, or the same?`,
          `Side by side on ${nameOf(c, l.ref)} hang ${words}. How much do they draw together?`,
          `In parallel on ${nameOf(c, l.ref)} hang ${words}. It gives ${mA(l.limit_A)} at most. What is left, and what would be left at their peaks (${mA(l.flow.peak)} together)?`,
        ),
        answer: at(
          level,
          `More: each takes its own share, ${mA(sum)} together.`,
          `${mA(sum)}: side by side, currents add up.`,
          `${mA(left)}; at the peaks ${mA(l.limit_A - l.flow.peak)}.`,
        ),
        working: `${list.map((x) => mA(x.flow.typ)).join(" + ")} = ${mA(sum)}`,
      };
    });
}

export const seriesParallel: Asker = {
  aim: "series-parallel",
  ask: (c, level) => {
    const [first = [], rest] = [lights(c, level), together(c, level)];
    // Both kinds come up, whatever the number that is asked for.
    return [...first.slice(0, 2), ...rest, ...first.slice(2, 6)];
  },
};
