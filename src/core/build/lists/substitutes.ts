import type { Circuit } from "../../circuit";
import type { Instance } from "../../circuit/netlist";
import { formatSI } from "../../quantity";

/** Parts that do the same work here, and what then differs. */
const INSTEAD: Record<string, [id: string, but: string][]> = {
  "discrete/npn-bc547": [["discrete/npn-2n2222", "its legs are in another order: E, B, C"]],
  "discrete/npn-2n2222": [["discrete/npn-bc547", "up to 100 mA only; its legs are in another order: C, B, E"]],
  "discrete/diode-1n4007": [["discrete/diode-1n5819", "up to 40 V only"]],
  "discrete/diode-1n4148": [["discrete/diode-1n4007", "too slow above some 10 kHz"]],
  "module/bme280": [["module/bmp280", "no humidity; other identity, so the program asks for another number"]],
  "module/bmp280": [["module/bme280", "the program asks for another identity"]],
  "module/ds1307": [["module/ds3231", "keeps time better, also at 3.3 V; other registers"]],
  "module/hc-sr04": [["module/ultrasonic-3v3", "works at 3.3 V without a divider"]],
};
const LED = /^discrete\/led-(red|green|yellow|white|blue)$/;
/** A pull-up, or a resistor in a signal, may be this far off: its own tolerance and more. */
const LOOSE_SHARE = 0.25;

/** What may be taken instead of a part, best first, as sentences; from the drawer where a value is near enough. */
export function substitutes(c: Circuit, i: Pick<Instance, "part" | "vars">): string[] {
  const { drawer } = c.project;
  const id = i.part.id;
  if (id === "discrete/resistor" && i.vars.resistance_ohm) {
    const want = i.vars.resistance_ohm;
    return [...drawer.resistors_ohm]
      .filter((r) => r !== want && Math.abs(r / want - 1) <= LOOSE_SHARE)
      .sort((a, b) => Math.abs(a / want - 1) - Math.abs(b / want - 1))
      .slice(0, 1)
      .map((r) => `${formatSI(r, "Ω")} from the drawer: put it in at the part and read the findings again`);
  }
  if (LED.test(id)) return [`any other colour: its resistor changes with it, so choose it at the part`];
  return (INSTEAD[id] ?? []).flatMap(([other, but]) => {
    const part = c.catalogue.get(other);
    return part ? [`${part.name}${drawer.parts[other] ? " (in the drawer)" : ""}: ${but}`] : [];
  });
}
