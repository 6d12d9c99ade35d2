import { LOOKS_MS, SETTLES_MS } from "../../firmware/drivers/button";
import { houseRule } from "../../project";
import { at, nameOf, type Asker } from "./types";

/** As a cheap contact does; the numbers of the questions, no promise of a part. */
const CLOSES = 6;

export const debouncing: Asker = {
  aim: "debouncing",
  ask(c, level) {
    const i = [...c.netlist.expanded.instances.values()].find((x) =>
      /^discrete\/(button|reed|limit-switch|footswitch)$/.test(x.part.id),
    );
    if (!i) return [];
    const name = nameOf(c, i.ref);
    const rc = houseRule(c.project, "bounce") === "rc";
    const presses = 3;
    return [
      {
        id: "count",
        ask: at(
          level,
          `${name} closes ${CLOSES} times at each press, too fast to see. You press ${presses} times, and a program counts every closing. What does it say?`,
          `${name} bounces: each press closes it ${CLOSES} times. What does a program that counts every closing say after ${presses} presses? What should it say?`,
          `Each press closes ${name} ${CLOSES} times within 4 ms. What does a program that counts edges say after ${presses} presses, and what one that waits ${SETTLES_MS} ms for a level to stand?`,
        ),
        answer: at(
          level,
          `${presses * CLOSES}, and it should say ${presses}.`,
          `${presses * CLOSES}; it should say ${presses}.`,
          `${presses * CLOSES}, and ${presses}: all closings lie within the wait.`,
        ),
        working: `${presses} × ${CLOSES} = ${presses * CLOSES}`,
      },
      {
        id: "looks",
        ask: at(
          level,
          `The program looks at ${name} every ${LOOKS_MS} thousandths of a second and believes it after ${SETTLES_MS}. How many looks is that?`,
          `The program looks every ${LOOKS_MS} ms and believes a level that stood for ${SETTLES_MS} ms. How many looks must agree, and how often can one press in a second at best?`,
          `The program looks every ${LOOKS_MS} ms and believes a level that stood for ${SETTLES_MS} ms. What is the shortest press that is surely felt, and how many presses a second at best?`,
        ),
        answer: at(
          level,
          `${SETTLES_MS / LOOKS_MS}.`,
          `${SETTLES_MS / LOOKS_MS}; at most ${1000 / (2 * SETTLES_MS)} times: ${SETTLES_MS} ms down and ${SETTLES_MS} ms up.`,
          `${SETTLES_MS + LOOKS_MS} ms: it may begin just after a look. At most ${1000 / (2 * (SETTLES_MS + LOOKS_MS))} a second.`,
        ),
        working: `${SETTLES_MS} / ${LOOKS_MS} = ${SETTLES_MS / LOOKS_MS}`,
      },
      ...(rc && level !== "7-11"
        ? [
            {
              id: "rc",
              ask: `A resistor and a capacitor smooth ${name} in this plan. Look up both: what is resistance times capacitance?`,
              answer: rcWords(c),
            },
          ]
        : []),
    ];
  },
};

function rcWords(c: Parameters<Asker["ask"]>[0]): string {
  const list = [...c.netlist.expanded.instances.values()].filter((x) => x.inserted?.key === "filter");
  const of = (key: string) => list.map((x) => Number(x.vars[key])).find((v) => v > 0);
  const [R, uF] = [of("resistance_ohm"), of("capacitance_uF")];
  return R && uF
    ? `${R} Ω × ${Number((uF * 1e3).toPrecision(3))} nF = ${Number((R * uF * 1e-3).toPrecision(2))} ms: bounces shorter than that are smoothed away.`
    : "It is on the parts list: multiply the two, ohms times farads are seconds.";
}
