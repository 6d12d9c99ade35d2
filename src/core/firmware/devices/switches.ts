import { acting, pinsAs } from "./acting";
import { write } from "./steps";
import { BRIGHTNESS } from "../dimmed";
import type { Device, DeviceKind, Takes } from "./types";

const onOff: Takes = { word: "on", unit: "", digits: 0, range: [0, 1], rest: 0 };
const CLICK = [1, 0, 1, 0];

/** One pin that switches: 1 is away from its resting level. */
const one = (id: string, pin: string, question: string, careful?: string): Device =>
  acting(id, pinsAs("switch", pin), [write("want")], onOff, {
    kind: "seen",
    show: CLICK,
    question,
    ...(careful && { careful }),
  });
/** What hangs on a switch is not known: it is switched on only when somebody asks for it. */
const LOAD = "keep clear of what it switches, check its supply,";

export const relay1 = one("module/relay-1", "IN", "Did it click twice?", LOAD);

export const buzzerActive = one("module/buzzer-active", "IO", "Did it sound twice?");
export const optocoupler = one("module/optocoupler-pc817", "A", "Did its other side switch twice?", LOAD);
/** A load switch: on and off, or by pulses where a rule says how much. */
const MOSFET = one("module/mosfet-switch", "SIG", "Was the load switched on twice?", LOAD);
const MOSFET_DIMMED = acting("module/mosfet-switch", pinsAs("duty", "SIG"), [write("want * 255 / 100")], BRIGHTNESS, {
  kind: "seen",
  show: [100, 30, 0],
  question: "Was the load on whole, then weaker, then off?",
  careful: LOAD,
});
export const mosfetSwitch: DeviceKind = {
  id: "module/mosfet-switch",
  cases: [{}, { dims: "pulses" }],
  of: (p) => (p.dims ? MOSFET_DIMMED : MOSFET),
};
/** A bare transistor: its load is named by the part that it stands in for. */
export const transistors = [
  ["discrete/nmos-ao3400", "G"],
  ["discrete/nmos-irlz44n", "G"],
  ["discrete/nmos-2n7000", "G"],
  ["discrete/npn-2n2222", "B"],
  ["discrete/npn-bc547", "B"],
  ["discrete/npn-tip120", "B"],
].map(([id, pin]) => one(id!, pin!, "Was the load switched on twice?", LOAD));

/** Two relays: bit 0 is the first. */
export const relay2 = acting(
  "module/relay-2",
  pinsAs("switch", "IN1", "IN2"),
  [write("want & 1", "want >> 1")],
  { word: "relays", unit: "", digits: 0, range: [0, 3], rest: 0, on: 3 },
  { kind: "seen", show: [1, 2, 0], question: "Did the first click, then the second?", careful: LOAD },
);

/** More relays in a row: a bit each, the first the lowest; shown one after the other. */
const relays = (n: number): Device =>
  acting(
    `module/relay-${n}`,
    pinsAs("switch", ...Array.from({ length: n }, (_, i) => `IN${i + 1}`)),
    [write(...Array.from({ length: n }, (_, i) => (i ? `want >> ${i} & 1` : "want & 1")))],
    { word: "relays", unit: "", digits: 0, range: [0, 2 ** n - 1], rest: 0, on: 2 ** n - 1 },
    {
      kind: "seen",
      show: [...Array.from({ length: n }, (_, i) => 2 ** i), 0],
      question: "Did they click one after the other, from the first to the last?",
      careful: LOAD,
    },
  );
export const relay4 = relays(4);
export const relay8 = relays(8);

/** Three lights in one: bit 0 red, bit 1 green, bit 2 blue. */
const colours = (id: string): Device =>
  acting(
    id,
    pinsAs("switch", "R", "G", "B"),
    [write("want & 1", "want >> 1 & 1", "want >> 2")],
    { word: "colour", unit: "", digits: 0, range: [0, 7], rest: 0, on: 7 },
    { kind: "seen", show: [1, 2, 4, 0], question: "Was it red, then green, then blue?" },
  );
export const ledRgb = colours("discrete/led-rgb-cc");
/** A colour lights while its pin is low: that is the link's business. */
export const ledRgbCa = colours("discrete/led-rgb-ca");

/** One digit of seven bars: 0 to 9, 10 is a minus, 11 is dark. */
const digit = (id: string): Device =>
  acting(
    id,
    pinsAs("switch", "a", "b", "c", "d", "e", "f", "g", "dp"),
    [write(...[0, 1, 2, 3, 4, 5, 6].map((bit) => `seg7(want) >> ${bit} & 1`), 0)],
    { word: "digit", unit: "", digits: 0, range: [0, 11], rest: 11 },
    { kind: "seen", show: [8, 1, 10, 11], question: "Did it show 8, then 1, then a dash?" },
    50,
  );
export const digits = [digit("discrete/digit-7seg-cc"), digit("discrete/digit-7seg-ca")];
