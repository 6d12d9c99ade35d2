import type { BusPart, Model, World } from "./types";

const TEN_BITS = 1023;
/** A voltage as the program gets it: sixteen bits of which a converter of ten bits gives the upper ones. */
const voltage = (share: number) => {
  const v = Math.round(share * TEN_BITS) << 6;
  return [v >> 8, v & 0xff];
};
const level = (v: number) => [0, v];
const inputs = (now: (ms: number) => number[]): BusPart => ({
  write: () => true,
  read: (n, ms) => now(ms).slice(0, n),
});

const digital = (part: string, name: string, low: boolean, rests?: number): Model => ({
  part,
  worlds: [{ [name]: 1 }, { [name]: 0 }],
  within: { [name]: 0 },
  ...(rests !== undefined && { settles: 100 }),
  make: (w) =>
    inputs((ms) => {
      const on = rests !== undefined && ms < 50 ? 0 : w[name]!;
      return level(low ? 1 - on : on);
    }),
});
const analogue = (part: string): Model => ({
  part,
  worlds: [{ pct: 0 }, { pct: 100 }, { pct: 37 }, { pct: 81 }],
  within: { pct: 1 },
  make: (w) => inputs(() => voltage(w.pct! / 100)),
});
/** Wetter soil, less voltage; once it was calibrated, percent from dry to wet. */
const soil: Model = {
  ...analogue("module/soil-capacitive"),
  within: { pct: 1, wet: 4 },
  feels(w, { options: o }) {
    const [dry, wet] = [Number(o?.dry_pct ?? 0), Number(o?.wet_pct ?? 0)];
    return dry === wet ? w : { wet: Math.min(100, Math.max(0, ((dry - w.pct!) / (dry - wet)) * 100)) };
  },
};
/** Its switched output pulls low beyond the setting; the voltage comes behind it. */
const comparator = (part: string): Model => ({
  part,
  worlds: [
    { pct: 20, switched: 1 },
    { pct: 90, switched: 0 },
  ],
  within: { pct: 1, switched: 0 },
  make: (w) => inputs(() => [...level(1 - w.switched!), ...voltage(w.pct! / 100)]),
});

const joystick: Model = {
  part: "module/joystick",
  worlds: [
    { x_pct: 80, y_pct: -40, pressed: 0 },
    { x_pct: -95, y_pct: 3, pressed: 1 },
  ],
  within: { x_pct: 1, y_pct: 1, pressed: 0 },
  settles: 100,
  // Its middle is never half: 52 and 47 per cent here.
  make: (w) =>
    inputs((ms) => {
      const moved = ms < 50 ? 0 : 1;
      const at = (middle: number, pct: number) => voltage(middle + (moved * pct * 512) / 100 / TEN_BITS);
      return [...at(0.52, w.x_pct!), ...at(0.47, w.y_pct!), ...level(1 - w.pressed! * moved)];
    }),
};

/** B 3950 K, 10 kilo-ohms at 25 degrees, at the supply, with 10 kilo-ohms to ground. */
const thermistor: Model = {
  part: "discrete/thermistor-10k",
  worlds: [-38, -20, -3, 5, 21, 25, 36, 50, 65, 80, 100, 120].map((t_C) => ({ t_C })),
  within: { t_C: 1.2 },
  make: (w) => {
    const ohm = 10_000 * Math.exp(3950 * (1 / (w.t_C! + 273.15) - 1 / (25 + 273.15)));
    return inputs(() => voltage(10_000 / (10_000 + ohm)));
  },
};

/** Two contacts that follow one another, four changes a click; CLK goes first when it is turned to the right. */
const encoder: Model = {
  part: "module/encoder",
  worlds: [
    { turned: 5, pressed: 0 },
    { turned: -3, pressed: 1 },
    { turned: 0, pressed: 0 },
  ],
  within: { turned: 0, pressed: 0 },
  settles: 500,
  make: (w) =>
    inputs((ms) => {
      const steps = Math.min(4 * Math.abs(w.turned!), Math.max(0, Math.floor((ms - 50) / 5))) * Math.sign(w.turned!);
      const phase = ((steps % 4) + 4) % 4;
      // Both rest high; to the right CLK falls first.
      const clk = phase === 1 || phase === 2 ? 0 : 1;
      const dt = phase === 2 || phase === 3 ? 0 : 1;
      return [...level(clk), ...level(dt), ...level(1 - w.pressed!)];
    }),
};

/** CD4067: S0 is the lowest bit of the line that is joined to the common pin. */
const cd4067: Model = {
  part: "module/cd4067",
  worlds: [
    Object.fromEntries(Array.from({ length: 16 }, (_, i) => [`c${i}`, 5 + i * 6])),
    Object.fromEntries(Array.from({ length: 16 }, (_, i) => [`c${i}`, (i * 37) % 101])),
  ],
  within: Object.fromEntries(Array.from({ length: 16 }, (_, i) => [`c${i}`, 1])),
  make(w: World) {
    let line = 5;
    return {
      write(bytes) {
        line = bytes.reduce((s, b, i) => s + (b ? 2 ** i : 0), 0);
        return bytes.length === 4;
      },
      read: () => voltage(w[`c${line}`]! / 100),
    };
  },
};

export const signals: readonly Model[] = [
  digital("module/a3144", "magnet", true),
  digital("module/pir", "moving", false),
  digital("module/button-module", "pressed", true, 0),
  digital("discrete/limit-switch", "pressed", true),
  analogue("module/acs712"),
  analogue("module/max9814"),
  soil,
  analogue("discrete/ldr"),
  analogue("discrete/potentiometer"),
  comparator("module/ldr-module"),
  comparator("module/tcrt5000"),
  comparator("module/mq2"),
  ...["flame", "sound-threshold", "rain", "mq3", "mq7", "mq135"].map((p) => comparator(`module/${p}`)),
  digital("module/ir-obstacle", "near", true),
  digital("module/vibration", "shaking", false),
  digital("module/slot-barrier", "covered", false),
  digital("module/tilt", "tilted", false),
  digital("module/ttp223", "touched", false),
  digital("module/microwave-motion", "moving", false),
  ...["module/max4466", "module/water-level", "discrete/fsr", "discrete/flex"].map(analogue),
  comparator("module/soil-resistive"),
  joystick,
  thermistor,
  encoder,
  cd4067,
];
