import { acting, pinsAs } from "./acting";
import { write } from "./steps";
import type { Device } from "./types";

/** A sounder that wants a tone: hertz, 0 is silence. */
const sounder = (id: string, pin: string): Device =>
  acting(
    id,
    pinsAs("tone", pin),
    [write("want >> 8", "want & 255")],
    { word: "tone", unit: "Hz", digits: 0, range: [0, 5000], rest: 0 },
    { kind: "seen", show: [440, 880, 0], question: "Did you hear two notes, the second higher?" },
  );

export const buzzerPassive = sounder("module/buzzer-passive", "IO");
export const speaker = sounder("discrete/speaker", "1");
/** A dial that follows pulses. */
export const gauge: Device = {
  ...sounder("discrete/gauge-12v", "IN"),
  takes: { word: "pulses", unit: "Hz", digits: 0, range: [0, 400], rest: 0 },
  proof: { kind: "seen", show: [100, 200, 0], question: "Did the needle rise in two steps and fall back?" },
};
