import { checklist, wanted, type CheckItem } from "../../bench";
import { at, endWords, type Asked, type Asker } from "./types";

const KINDS: { id: string; of(i: CheckItem): boolean }[] = [
  { id: "no beep", of: (i) => wanted(i) === "no beep" },
  { id: "beeps", of: (i) => wanted(i) === "beeps" },
  { id: "volt", of: (i) => i.unit === "V" },
  { id: "ohm", of: (i) => i.unit === "Ω" },
];

/** Readings to foretell: one of each kind first, as the bench predicts them for this plan. */
export const meter: Asker = {
  aim: "meter",
  ask(c, level) {
    const list = checklist(c).filter((i) => i.to);
    const picked = KINDS.flatMap((k) => list.filter((i) => k.of(i)).slice(0, 1));
    const more = list.filter((i) => !picked.includes(i) && KINDS.some((k) => k.of(i))).slice(0, 4);
    return [...picked, ...more].map((i): Asked => {
      const when = i.when === "before power" ? "with nothing plugged in" : "with the power on";
      const [a, b] = [endWords(c, i.from), endWords(c, i.to)];
      return {
        id: `reads ${i.id}`,
        ask: at(
          level,
          `Foretell, ${when}: one probe at ${a}, the other at ${b}. What does the meter do?`,
          `Foretell, ${when}: what does the meter show between ${a} and ${b}? On which setting?`,
          `Foretell with its limits, ${when}: what shows between ${a} and ${b}? What would it mean if it did not?`,
        ),
        answer: `${wanted(i)[0]!.toUpperCase()}${wanted(i).slice(1)}.${level === "7-11" ? "" : ` Setting: ${i.unit === "V" ? "volts, direct" : i.unit === "Ω" ? "ohms" : "beep"}.`}${level === "14+" ? ` ${i.why[0]!.toUpperCase()}${i.why.slice(1)}.` : ""}`,
      };
    });
  },
};
