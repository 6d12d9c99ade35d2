import type { Circuit } from "../../circuit";
import type { LessonLevel } from "../../project";
import { at, nameOf, toldV, volts, type Asked, type Asker } from "./types";

/** A contact on its pin: what is read while it is open and while it is closed. */
function contacts(c: Circuit, level: LessonLevel): Asked[] {
  return c.netlist.bindings.flatMap((b): Asked[] => {
    const i = c.netlist.instance(b.ref)!;
    if (!/^discrete\/(button|reed|limit-switch|toggle|footswitch|slide-switch)$/.test(i.part.id) || !b.direct)
      return [];
    const pair = c.levels.find(
      (l) => l.receiver.ref === b.host && l.receiver.pin === b.hostPin && l.driver.how === "contact",
    );
    const other = i.part.pins.find(
      (p) => p.label !== b.pin && c.netlist.netOf(`${b.ref}.${p.label}`)?.kind === "ground",
    );
    const low = other !== undefined;
    const V = pair?.receiver.V.typ;
    const told = V === undefined ? "" : ` The board works at ${volts(V)}.`;
    const [open, closed] = low ? ["high", "low"] : ["low", "high"];
    return [
      {
        id: `contact ${b.ref}`,
        ask: at(
          level,
          `What does the board see at pin ${b.hostPin} while ${i.label} is left alone, and what while it is pressed: high or low?`,
          `${i.label} joins pin ${b.hostPin} to ${low ? "ground" : "the supply"}. Which level is read while it is open, and which while it is closed?${told}`,
          `Why does pin ${b.hostPin} need a resistor (inside or outside) as long as ${i.label} is open? Give the level and the volts of both states.${told}`,
        ),
        answer: `${at(level, "Left alone", "Open", "Without it the pin would float, and read anything. Open")}: ${open}${V === undefined ? "" : ` (${low ? volts(V) : "0 V"})`}. ${at(level, "Pressed", "Closed", "Closed")}: ${closed}${V === undefined ? "" : ` (${low ? "0 V" : volts(V)})`}.`,
      },
    ];
  });
}

/** Whether what a driver promises is enough for who listens. */
function margins(c: Circuit, level: LessonLevel): Asked[] {
  const seen = new Set<string>();
  return c.levels
    .filter((l) => !l.analog && l.driver.how === "push-pull" && Number.isFinite(l.marginHigh))
    .sort((a, b) => a.marginHigh - b.marginHigh)
    .flatMap((l): Asked[] => {
      const key = `${l.driver.ref} ${l.receiver.ref}`;
      if (seen.has(key)) return [];
      seen.add(key);
      const [high, low] = [toldV(toldV(l.high_V) - toldV(l.VIH)), toldV(toldV(l.VIL) - toldV(l.low_V))];
      const [from, to] = [
        `${nameOf(c, l.driver.ref)} (${l.driver.pin})`,
        `${nameOf(c, l.receiver.ref)} (${l.receiver.pin})`,
      ];
      return [
        {
          id: `margin ${l.driver.ref}.${l.driver.pin} ${l.receiver.ref}.${l.receiver.pin}`,
          ask: at(
            level,
            `${from} promises at least ${volts(l.high_V)} when it says "high". ${to} understands "high" from ${volts(l.VIH)} on. Do they understand each other?`,
            `${from} gives at least ${volts(l.high_V)} as a high, ${to} needs ${volts(l.VIH)}. How much room is there?`,
            `${from} gives at least ${volts(l.high_V)} as a high and at most ${volts(l.low_V)} as a low; ${to} wants at least ${volts(l.VIH)} and at most ${volts(l.VIL)}, and bears ${volts(l.ceiling)}. Give both margins. What would you do if the first were below nought?`,
          ),
          answer: at(
            level,
            high >= 0 ? `Yes: ${volts(l.high_V)} is more than ${volts(l.VIH)}.` : "No: it is too little.",
            `${volts(high)}.`,
            `High ${volts(high)}, low ${volts(low)}. A level shifter, or a part that works at the other voltage.`,
          ),
          working: `${volts(l.high_V)} - ${volts(l.VIH)} = ${volts(high)}${level === "14+" ? `; ${volts(l.VIL)} - ${volts(l.low_V)} = ${volts(low)}` : ""}`,
        },
      ];
    })
    .slice(0, 3);
}

export const levels: Asker = {
  aim: "levels",
  ask: (c, level) => [...contacts(c, level).slice(0, 2), ...margins(c, level)],
};
