import { checklist, wanted, type CheckItem } from "../bench";
import type { Circuit } from "../circuit";
import { formatOhm } from "../quantity";

interface Trial {
  of: RegExp;
  says(vars: Readonly<Record<string, unknown>>): string;
}
const ohms = (vars: Readonly<Record<string, unknown>>, key: string) => Number(vars[key]) || 0;

/** How a loose part is seen to be sound with a meter and two fingers. Adding one is a line. */
const TRIALS: readonly Trial[] = [
  {
    of: /^discrete\/resistor$/,
    says: (v) => {
      const R = ohms(v, "resistance_ohm");
      return R
        ? `meter on ohms: ${formatOhm(R * 0.95)} to ${formatOhm(R * 1.05)}`
        : "meter on ohms: as its bands say, within 5 %";
    },
  },
  {
    of: /^discrete\/(digit|led-rgb)/,
    says: () =>
      "with a resistor of 1 kΩ at 5 V, from the common leg: each of its lights glows, the other way round none",
  },
  {
    of: /^discrete\/led-ir$/,
    says: () =>
      "meter on the diode mark, red at the long leg: 1.0 to 1.6 V; the other way round OL. Its light is not seen",
  },
  // The diode mark of many meters gives too few volts for these.
  {
    of: /^discrete\/led-(blue|white)$/,
    says: () => "with a resistor of 1 kΩ at 5 V: it glows; the other way round it stays dark",
  },
  {
    of: /^discrete\/led-/,
    says: () => "meter on the diode mark, red at the long leg: it glows a little; the other way round OL",
  },
  {
    of: /^discrete\/(button|footswitch|limit-switch)$/,
    says: () => "beeps only while it is pressed, each of ten times",
  },
  { of: /^discrete\/(toggle|slide-switch)$/, says: () => "beeps in one position only, each of ten times" },
  { of: /^discrete\/reed$/, says: () => "beeps only with a magnet beside it" },
  { of: /^discrete\/float-switch$/, says: () => "beeps in one position of the float only" },
  {
    of: /^discrete\/potentiometer$/,
    says: () => "meter on ohms from the middle to an end: goes from nothing to its value without a jump",
  },
  { of: /^discrete\/(ldr)$/, says: () => "meter on ohms: falls when it is lit, rises under a finger" },
  { of: /^discrete\/thermistor/, says: () => "meter on ohms: falls when it is held between two fingers" },
  { of: /^discrete\/(flex|fsr)$/, says: () => "meter on ohms: changes when it is bent or pressed" },
  { of: /^discrete\/diode/, says: () => "meter on the diode mark: 0.2 to 0.8 V one way, OL the other" },
  { of: /^discrete\/(npn|nmos)/, says: () => "all legs there; meter on the diode mark: no two legs beep" },
  { of: /^discrete\/electrolytic$/, says: () => "not bulged, no leg loose; beeps once and falls silent" },
  { of: /^discrete\/capacitor$/, says: () => "not chipped; does not beep" },
  { of: /^discrete\/(motor|pump)/, says: () => "turns by hand without scraping; ohms between its wires, not OL" },
  { of: /^discrete\/(solenoid|relay-coil)/, says: () => "moves freely; ohms between the ends of its coil, not OL" },
  { of: /^discrete\/speaker$/, says: () => "6 to 9 Ω; scratches when the meter touches it" },
  { of: /^wire$/, says: () => "beeps from end to end while it is bent at both ends" },
  { of: /^cable$/, says: () => "the computer sees the board through it, also when it is bent at the plugs" },
  { of: /^breadboard/, says: () => "a leg holds in every used hole; rails beep from end to end" },
];

/** What a check of the bench shows of a part. */
const told = (i: CheckItem) =>
  i.when === "bring-up"
    ? `bring-up says that it ${wanted(i)}`
    : `${wanted(i)} between ${[i.from, i.to].filter(Boolean).join(" and ")}`;

/**
 * How a part of a plan is tested when it comes back: by the bench's own checks where it has one of its own (a line of bring-up,
 * the volts of a supply), else by a meter.
 */
export function testOf(
  c: Circuit,
  part: string,
  refs: readonly string[],
  vars: Readonly<Record<string, unknown>>,
): string {
  const loose = TRIALS.find((t) => t.of.test(part));
  if (loose) return loose.says(vars);
  const list = checklist(c);
  const mine = refs.map((r) => r.split(/[.~]/)[0]!);
  const own =
    list.find((i) => i.when === "bring-up" && mine.includes(i.from) && i.id.startsWith("part ")) ??
    list.find((i) => i.unit === "V" && mine.includes(i.from.split(".")[0]!)) ??
    list.find((i) => i.when === "bring-up" && mine.includes(i.from));
  return own ? told(own) : "looked at: no pin bent, nothing burnt, nothing loose";
}
