import { acting, pinsAs } from "./acting";
import { work, write } from "./steps";
import type { Device, DeviceKind, Step, Takes } from "./types";

const MOVES = "keep fingers and wires clear of what it moves,";

/**
 * Hobby servos: a high of 1.0 to 2.0 ms, which all of them take without running against a stop; no pulses until a rule says
 * where to go.
 */
const servo = (id: string): DeviceKind => ({
  id,
  cases: [{ options: { pwm_Hz: 50 } }, { options: { pwm_Hz: 100 } }],
  of: (w): Device => ({
    id,
    over: { kind: "pins", out: [{ pin: "SIG", as: "pulse", Hz: Number(w.options.pwm_Hz ?? 50) }] },
    begin: [],
    read: [work("us", "want < 0 ? 0 : 1000 + want * 50 / 9"), write("us >> 8", "us & 255")],
    every: Math.round(1000 / Number(w.options.pwm_Hz ?? 50)),
    always: true,
    out: [],
    takes: { word: "angle", unit: "deg", digits: 0, range: [0, 180], rest: -1 },
    proof: {
      kind: "seen",
      show: [45, 135, 90],
      question: "Did its arm turn to one side, to the other, and to the middle?",
      careful: MOVES,
    },
  }),
});
export const servoSmall = servo("module/servo-small");
export const servoLarge = servo("module/servo-large");

const speed: Takes = { word: "speed", unit: "%", digits: 0, range: [-100, 100], rest: 0 };
const turns = {
  kind: "seen",
  show: [60, 0, -60, 0],
  question: "Did it turn one way, stop, and turn the other way?",
  careful: MOVES,
} as const;
const DUTY = "abs(want) * 255 / 100";

/** Both bridges alike: which way by two inputs each. */
const WAY = ["want > 0", "want < 0", "want > 0", "want < 0"];

/** L298N: how fast by the enables where they are wired. */
export const l298n = acting(
  "module/l298n",
  [...pinsAs("level", "IN1", "IN2", "IN3", "IN4"), ...pinsAs("duty", "ENA", "ENB")],
  [write(...WAY, DUTY, DUTY)],
  speed,
  turns,
);

/** TB6612: the same with a standby input that is low at rest. */
export const tb6612 = acting(
  "module/tb6612",
  [...pinsAs("level", "AIN1", "AIN2", "BIN1", "BIN2", "STBY"), ...pinsAs("duty", "PWMA", "PWMB")],
  [write(...WAY, "want != 0", DUTY, DUTY)],
  speed,
  turns,
);

/** DRV8833: a high on one input of a bridge turns it, both low let it run out. Whole speed: its pins are plain outputs. */
export const drv8833 = acting(
  "module/drv8833",
  pinsAs("level", "IN1", "IN2", "IN3", "IN4"),
  [write(...WAY)],
  { word: "way", unit: "", digits: 0, range: [-1, 1], rest: 0 },
  { ...turns, show: [1, 0, -1, 0] },
);

/** One step nearer to where it shall be. */
const nearer: Step = work("place", "want > place ? place + 1 : want < place ? place - 1 : place");
const place: Takes = { word: "steps", unit: "", digits: 0, range: [-1_000_000, 1_000_000], rest: 0 };

/** Half steps of four coils: one, two, the next … Bit n of each mask is whether the coil is on in phase n. */
const COILS = [0b1000_0011, 0b0000_1110, 0b0011_1000, 0b1110_0000];
export const uln2003: Device = {
  id: "module/uln2003-stepper",
  over: { kind: "pins", out: pinsAs("level", "IN1", "IN2", "IN3", "IN4") },
  begin: [work("place", "0")],
  read: [
    work("still", "place == want"),
    nearer,
    // All coils off once it stands: the gears hold it, and it stays cool.
    { do: "write", bytes: COILS.map((mask) => `still ? 0 : ${mask} >> (place & 7) & 1`) },
  ],
  every: 2,
  always: true,
  out: [],
  takes: place,
  proof: {
    kind: "seen",
    show: [512, 0],
    ms: 2500,
    question: "Did its axle turn an eighth of the way round, and back?",
    careful: MOVES,
  },
};

/** A4988: a step at the rising edge, 1 us high at least; its enable is low only while it moves. */
export const a4988: Device = {
  id: "module/a4988",
  over: { kind: "pins", out: pinsAs("level", "EN", "DIR", "STEP") },
  begin: [work("place", "0"), work("way", "0")],
  read: [
    work("still", "place == want"),
    work("way", "still ? way : want > place"),
    write("still", "way", 0),
    write("still", "way", "still ? 0 : 1"),
    nearer,
  ],
  every: 2,
  always: true,
  out: [],
  takes: place,
  proof: {
    kind: "seen",
    show: [200, 0],
    ms: 1500,
    question: "Did its axle turn once round, and back?",
    careful: MOVES,
  },
};
