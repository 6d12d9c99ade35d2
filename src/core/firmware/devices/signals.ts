import { firstFirst } from "./lowest";
import { count, percentAt, read, share, work } from "./steps";
import type { Device, DeviceKind, DeviceProof, Quantity } from "./types";

const watch = (act: string, by: number, steady?: boolean): DeviceProof => ({
  kind: "watch",
  act,
  by,
  ...(steady && { steady }),
});

/** A part with one digital output: 1 is what its word says. `low`: it says so by a low. */
const yesNo = (id: string, pin: string, name: string, low: boolean, act: string): Device => ({
  id,
  over: { kind: "pins", in: [pin] },
  begin: [],
  read: [read(2), work(name, low ? "1 - u8(1)" : "u8(1)")],
  every: 20,
  out: [count(name, name, [0, 1])],
  proof: watch(act, 1),
});

/** A part whose voltage tells: percent of what the board can read. */
const voltage = (id: string, pin: string, word: string, act: string): Device => ({
  id,
  over: { kind: "pins", in: [pin] },
  begin: [],
  read: [read(2), work("pct", percentAt(0))],
  every: 100,
  out: [share("pct", word)],
  proof: watch(act, 6),
});

/** A comparator board: its switched output pulls low beyond the screw's setting; the voltage behind it where that is wired. */
const comparator = (id: string, name: string, first: "AO" | "DO", act: string): DeviceKind => ({
  id,
  cases: [{}, { has: (l) => l === first }],
  of: (w): Device => {
    const parts: Record<"AO" | "DO", { steps: ReturnType<typeof work>; out: Quantity }> = {
      AO: { steps: work("pct", percentAt(2)), out: share("pct", name) },
      DO: { steps: work("switched", "1 - u8(1)"), out: count("switched", w.has("AO") ? "" : name, [0, 1]) },
    };
    // What says more stands first: it is watched.
    const there = (["AO", "DO"] as const).filter((l) => w.has(l)).map((l) => parts[l]);
    return {
      id,
      over: { kind: "pins", in: ["DO", "AO"] },
      begin: [],
      read: [read(4), ...there.map((x) => x.steps)],
      every: 50,
      out: there.map((x) => x.out),
      proof: watch(act, w.has("AO") ? 6 : 1),
    };
  },
});

export const a3144 = yesNo("module/a3144", "OUT", "magnet", true, "bring a magnet near, and hold");
export const pir = yesNo("module/pir", "OUT", "moving", false, "walk past it after it has warmed up for a minute");
/** Most pull low when pressed; some sellers wire them the other way round: what it rests at is taken at the start. */
export const buttonModule: Device = {
  ...yesNo("module/button-module", "OUT", "pressed", true, "press it"),
  begin: [read(2), work("idle", "u8(1)")],
  read: [read(2), work("pressed", "u8(1) != idle")],
};
/** The contact to ground closes at the end of the way. */
export const limitSwitch = yesNo("discrete/limit-switch", "NO", "pressed", true, "press its lever and hold");

export const acs712 = voltage("module/acs712", "OUT", "current", "switch on what it measures");
export const max9814 = voltage("module/max9814", "OUT", "sound", "whistle for a second");
const soil = voltage("module/soil-capacitive", "AOUT", "dry", "hold its blade in your hand");
/** What it told in dry and in wet soil makes percent of what it tells now, and no more than all or nothing. */
export const soilCapacitive: DeviceKind = {
  id: soil.id,
  cases: [{}, { options: { dry_pct: 72, wet_pct: 31 } }],
  of(w): Device {
    const [dry, wet] = [w.options.dry_pct, w.options.wet_pct].map((v) => Math.round((Number(v ?? 0) * 1023) / 100));
    if (dry === wet) return soil;
    return {
      ...soil,
      read: [
        read(2),
        work("now", `((u16be(0) >> 6) - ${dry}) * 100 / ${wet! - dry!}`),
        work("wet", "now < 0 ? 0 : now > 100 ? 100 : now"),
      ],
      out: [share("wet", "wet")],
    };
  },
};
export const max4466 = voltage("module/max4466", "OUT", "sound", "whistle for a second");
export const waterLevel = voltage("module/water-level", "S", "wet", "dip its tracks into a glass of water");
export const fsr = voltage("discrete/fsr", "2", "pressed", "press its field and hold");
export const flex = voltage("discrete/flex", "2", "straight", "bend it and hold");
export const ldr = voltage("discrete/ldr", "2", "light", "cover it with your hand and hold");
export const potentiometer = voltage("discrete/potentiometer", "2", "turned", "turn it and let it stand");

export const ldrModule = comparator("module/ldr-module", "light", "DO", "cover it with your hand and hold");
export const tcrt5000 = comparator("module/tcrt5000", "ground", "DO", "hold it over something white, then black");
export const mq2 = comparator("module/mq2", "gas", "AO", "breathe on it for a few seconds");
export const soilResistive = comparator(
  "module/soil-resistive",
  "wet",
  "AO",
  "wet its prongs or join them with a finger",
);

export const flame = comparator("module/flame", "light", "DO", "hold it before a bright lamp, then cover it");
export const soundThreshold = comparator("module/sound-threshold", "loud", "DO", "whistle at it for a second");
export const rain = comparator("module/rain", "wet", "AO", "wet its plate with a finger");
export const mq3 = comparator("module/mq3", "gas", "AO", "breathe on it for a few seconds");
export const mq7 = comparator("module/mq7", "gas", "AO", "breathe on it for a few seconds");
export const mq135 = comparator("module/mq135", "gas", "AO", "breathe on it for a few seconds");

export const irObstacle = yesNo("module/ir-obstacle", "OUT", "near", true, "hold a hand before it");
export const vibration = yesNo("module/vibration", "DO", "shaking", false, "shake it, or knock beside it");
export const slotBarrier = yesNo(
  "module/slot-barrier",
  "DO",
  "covered",
  false,
  "put a piece of card into its slot and hold",
);
export const tilt = yesNo("module/tilt", "DO", "tilted", false, "tilt it on its side and hold");
export const ttp223 = yesNo("module/ttp223", "IO", "touched", false, "lay a finger on its pad and hold");
export const microwave = yesNo("module/microwave-motion", "OUT", "moving", false, "wave before it");

/** Two voltages that rest near the middle, which is taken at the start, and a press to ground. */
export const joystick: Device = {
  id: "module/joystick",
  over: { kind: "pins", in: ["VRX", "VRY", "SW"] },
  begin: [read(6), work("x0", "u16be(0) >> 6"), work("y0", "u16be(2) >> 6")],
  read: [
    read(6),
    work("x_pct", "((u16be(0) >> 6) - x0) * 100 / 512"),
    work("y_pct", "((u16be(2) >> 6) - y0) * 100 / 512"),
    work("pressed", "1 - u8(5)"),
  ],
  every: 20,
  out: [
    { name: "x_pct", word: "x", unit: "", digits: 0, room: [-200, 200] },
    { name: "y_pct", word: "y", unit: "", digits: 0, room: [-200, 200] },
    count("pressed", "pressed", [0, 1]),
  ],
  proof: watch("push the stick to one side and hold", 30),
};

/**
 * A thermistor over its resistor of the same value at 25 degrees, B 3950 K: degrees by the share of the supply at the middle, in
 * steps of 1/1023. Straight lines between the points of 1 / (1/298.15 K + ln(R/R25) / B).
 */
const B_K = 3950;
const ratio = (celsius: number) => 1 / (1 + Math.exp(B_K * (1 / (celsius + 273.15) - 1 / 298.15)));
const POINTS = [-40, -25, -10, 0, 10, 20, 30, 40, 55, 70, 85, 105, 125].map(
  (t) => [Math.round(ratio(t) * 1023), t * 100] as const,
);
const line = (i: number): string => {
  const [x0, y0] = POINTS[i]!;
  const [x1, y1] = POINTS[i + 1]!;
  const here = `(k - ${x0}) * ${y1 - y0} / ${x1 - x0} + ${y0}`;
  return i + 2 >= POINTS.length ? here : `k < ${x1} ? ${here} : ${line(i + 1)}`;
};
export const thermistor: Device = {
  id: "discrete/thermistor-10k",
  over: { kind: "pins", in: ["2"] },
  begin: [],
  read: [read(2), work("k", "u16be(0) >> 6"), work("t_cC", line(0))],
  every: 200,
  out: [{ name: "t_cC", word: "", unit: "C", digits: 2, shown: 0, room: [-4000, 12_500] }],
  proof: watch("hold it between two fingers until it is warm", 150),
};

/** Gray code of two contacts, looked at every millisecond: four steps a click. Old and new together say which way. */
export const encoder: Device = {
  id: "module/encoder",
  over: { kind: "pins", in: ["CLK", "DT", "SW"] },
  begin: [read(6), work("old", "u8(1) << 1 | u8(3)"), work("steps", "0")],
  read: [
    read(6),
    work("both", "u8(1) << 1 | u8(3)"),
    // 0 to 1 to 3 to 2 is one way, the other order the other; no change and two at once say nothing.
    work("way", "old << 2 | both"),
    work(
      "steps",
      "way == 1 | way == 7 | way == 14 | way == 8 ? steps - 1 : way == 2 | way == 11 | way == 13 | way == 4 ? steps + 1 : steps",
    ),
    work("old", "both"),
    work("turned", "steps / 4"),
    work("pressed", "1 - u8(5)"),
  ],
  every: 1,
  out: [
    { name: "turned", word: "turned", unit: "", digits: 0, room: [-100_000, 100_000] },
    count("pressed", "pressed", [0, 1]),
  ],
  proof: watch("turn it by two clicks", 2, true),
};

/** CD4067: a line is chosen by four pins, then read at the common one. */
const LINES = Array.from({ length: 16 }, (_, i) => i);
export const cd4067: DeviceKind = {
  id: "module/cd4067",
  cases: [{}, { ins: 0b1000_0010_0000 }],
  of({ ins }): Device {
    const [first, lines] = firstFirst(LINES, ins);
    return {
      id: "module/cd4067",
      over: {
        kind: "pins",
        in: ["SIG"],
        out: ["S0", "S1", "S2", "S3"].map((pin) => ({ pin, as: "level" })),
      },
      begin: [],
      read: LINES.flatMap((i) => [
        { do: "write", bytes: [i & 1, (i >> 1) & 1, (i >> 2) & 1, i >> 3] } as const,
        read(2),
        // A thousandth each: what hangs on the line reckons on from it.
        work(`c${i}`, "(u16be(0) >> 6) * 1000 / 1023"),
      ]),
      every: 100,
      out: lines.map((i) => ({
        name: `c${i}`,
        word: i ? "" : "c0-15",
        unit: "",
        digits: 1,
        shown: 0,
        room: [0, 1000],
      })),
      proof: watch(`turn or touch what hangs on its line C${first}`, 60),
    };
  },
};
