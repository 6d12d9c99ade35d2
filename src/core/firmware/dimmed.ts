import type { Takes } from "./devices/types";
import type { DriverPart, Lack } from "./types";

/** What a light or a load switch takes that is worked by pulses. */
export const BRIGHTNESS: Takes = { word: "brightness", unit: "%", digits: 0, range: [0, 100], rest: 0, on: 100 };

/** Why a part can't be worked by pulses as it is planned, or null. */
export function unfitDimmed(p: DriverPart): Lack | null {
  if (!p.dims) return null;
  if (p.dims === "none")
    return {
      kind: "capability",
      why: `its pin makes no pulses, and how bright it is takes them: let ${p.ref}'s pin be planned again`,
    };
  return p.target === "avr-c"
    ? {
        kind: "capability",
        why: "plain C makes no shares of full power here: the chip's timers are for tones and for your own code",
      }
    : null;
}
