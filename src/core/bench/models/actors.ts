import type { As, BusPart, Model, World } from "./types";

/** A part at plain pins: what was written to them last, in the order of its pins, and what that does. */
const acts = (
  part: string,
  wants: readonly (readonly [number, World])[],
  is: (bytes: readonly number[], as: As) => World,
  within: World = {},
): Model => ({
  part,
  worlds: [{}],
  within: { ...Object.fromEntries(Object.keys(wants[0]![1]).map((k) => [k, 0])), ...within },
  wants: () => wants,
  make(_w, as): BusPart {
    let last: readonly number[] = [];
    return {
      write(bytes) {
        last = bytes;
        return true;
      },
      read: () => null,
      is: () => is(last, as),
    };
  },
});
const onOff = (part: string) =>
  acts(
    part,
    [
      [1, { on: 1 }],
      [0, { on: 0 }],
    ],
    ([v]) => ({ on: v! }),
  );
const tone = (part: string, list: number[]) =>
  acts(
    part,
    list.map((v) => [v, { Hz: v }] as const),
    ([hi, lo]) => ({ Hz: hi! * 256 + lo! }),
  );

/** The bars of a digit, a first, as everybody draws them. */
const DIGITS: Record<string, string> = {
  abcdef: "0",
  bc: "1",
  abdeg: "2",
  abcdg: "3",
  bcfg: "4",
  acdfg: "5",
  acdefg: "6",
  abc: "7",
  abcdefg: "8",
  abcdfg: "9",
  g: "10",
  "": "11",
};
const bars = (bytes: readonly number[]) =>
  Number(DIGITS[[..."abcdefg"].filter((_, i) => bytes[i]).join("")] ?? NaN) + (bytes[7] ? NaN : 0);
const digit = (part: string) =>
  acts(
    part,
    [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].map((v) => [v, { shows: v }] as const),
    (b) => ({ shows: bars(b) }),
  );

/** A servo turns 90 degrees a millisecond about 1.5 ms; without pulses it is let go. */
const servo = (part: string) =>
  acts(
    part,
    [
      [-1, { angle_deg: -1 }],
      [0, { angle_deg: 0 }],
      [90, { angle_deg: 90 }],
      [180, { angle_deg: 180 }],
      [37, { angle_deg: 37 }],
    ],
    ([hi, lo]) => {
      const us = hi! * 256 + lo!;
      return { angle_deg: us === 0 ? -1 : ((us - 1000) * 180) / 1000 };
    },
    { angle_deg: 0.5 },
  );

const SPEEDS = [0, 100, -100, 40, -55, 1].map((v) => [v, { speed_pct: v }] as const);
/** Which way by two inputs, how fast by a duty. Both bridges must do the same. */
const way = (a: number, b: number) => (a && !b ? 1 : b && !a ? -1 : 0);

const l298n = acts(
  "module/l298n",
  SPEEDS,
  ([a, b, c, d, ea, eb]) => {
    const one = (way(a!, b!) * ea! * 100) / 255;
    const two = (way(c!, d!) * eb! * 100) / 255;
    // With its enables jumpered the inputs alone must stop it.
    if ((!ea && way(a!, b!)) || (!eb && way(c!, d!))) return { speed_pct: NaN };
    return { speed_pct: one === two ? one : NaN };
  },
  { speed_pct: 0.5 },
);
const tb6612 = acts(
  "module/tb6612",
  SPEEDS,
  ([a, b, c, d, standby, ea, eb]) => {
    const one = (way(a!, b!) * ea! * 100) / 255;
    const two = (way(c!, d!) * eb! * 100) / 255;
    // At rest it sleeps.
    if (!standby) return { speed_pct: one || two || a || b || c || d ? NaN : 0 };
    return { speed_pct: one === two && one !== 0 ? one : NaN };
  },
  { speed_pct: 0.5 },
);
const drv8833 = acts(
  "module/drv8833",
  [
    [0, { way: 0 }],
    [1, { way: 1 }],
    [-1, { way: -1 }],
  ],
  ([a, b, c, d]) => ({ way: way(a!, b!) === way(c!, d!) && !(a && b) ? way(a!, b!) : NaN }),
);

const STEPS = [40, -24, 0, 7].map((v) => [v, { place: v }] as const);
/** Eight half steps of four coils; the axle follows one that is next to where it stands, and loses its place at any other. */
const uln2003: Model = {
  part: "module/uln2003-stepper",
  worlds: [{}],
  within: { place: 0, hot: 0 },
  wants: () => STEPS.map(([v]) => [v, { place: v, hot: 0 }] as const),
  make() {
    const ORDER = ["1000", "1100", "0100", "0110", "0010", "0011", "0001", "1001"];
    let place = 0;
    let last = -Infinity;
    // The axle follows what stands for a moment: four pins never change at once.
    let stands = { text: "0000", at: 0 };
    const settle = (now: number) => {
      if (now <= stands.at || stands.text === "0000") return;
      const phase = ORDER.indexOf(stands.text);
      const off = (((phase - place) % 8) + 8) % 8;
      if (phase < 0 || (off !== 1 && off !== 7 && off !== 0)) place = NaN;
      else place += off === 7 ? -1 : off;
      // 28BYJ-48 follows 900 half steps a second at most, without a start.
      if (off !== 0 && stands.at - last < 1.1) place = NaN;
      if (off !== 0) last = stands.at;
    };
    return {
      write(bytes, now) {
        settle(now);
        stands = { text: bytes.map((b) => (b ? "1" : "0")).join(""), at: now };
        return true;
      },
      read: () => null,
      is: (now) => {
        settle(now);
        return { place, hot: stands.text.replace(/0/g, "").length };
      },
    };
  },
};
/** A4988: a rising edge is a step when it is enabled; the direction must stand before it. */
const a4988: Model = {
  part: "module/a4988",
  worlds: [{}],
  within: { place: 0, held: 0 },
  wants: () => STEPS.map(([v]) => [v, { place: v, held: 0 }] as const),
  make() {
    let place = 0;
    let last = [1, 0, 0];
    return {
      write(bytes) {
        const [en, dir, step] = bytes as [number, number, number];
        const rises = step && !last[2];
        if (rises && (dir !== last[1] || en !== last[0])) place = NaN;
        // A step into a bridge that is off is lost.
        if (rises) place += en ? NaN : dir ? 1 : -1;
        last = [en, dir, step];
        return true;
      },
      read: () => null,
      is: () => ({ place, held: 1 - last[0]! }),
    };
  },
};

/** Relays in a row, each with an input of its own: which of them are drawn. */
const relays = (n: number): Model => {
  const of = (v: number) => Object.fromEntries(Array.from({ length: n }, (_, i) => [`r${i + 1}`, (v >> i) & 1]));
  const wants = [0, ...Array.from({ length: n }, (_, i) => 2 ** i), 2 ** n - 1, 5];
  return acts(
    `module/relay-${n}`,
    wants.map((v) => [v, of(v)] as const),
    (pins) => Object.fromEntries(pins.map((p, i) => [`r${i + 1}`, p])),
  );
};

/** A load switch: on and off by a level, or by pulses as much as their share is long. */
const switched = onOff("module/mosfet-switch");
const pulsed = acts(
  "module/mosfet-switch",
  [0, 100, 50, 1, 33].map((v) => [v, { bright_pct: v }] as const),
  ([v]) => ({ bright_pct: (v! / 255) * 100 }),
  { bright_pct: 0.5 },
);
const mosfetSwitch: Model = {
  ...switched,
  within: { ...switched.within, ...pulsed.within },
  wants: (as) => (as.dims ? pulsed : switched).wants!(as),
  make: (w, as) => (as.dims ? pulsed : switched).make(w, as),
};

export const actors: readonly Model[] = [
  mosfetSwitch,
  ...[
    "module/relay-1",
    "module/buzzer-active",
    "module/optocoupler-pc817",
    "discrete/nmos-ao3400",
    "discrete/nmos-irlz44n",
    "discrete/nmos-2n7000",
    "discrete/npn-2n2222",
    "discrete/npn-bc547",
    "discrete/npn-tip120",
  ].map(onOff),
  acts(
    "module/relay-2",
    [0, 1, 2, 3].map((v) => [v, { first: v % 2, second: v >> 1 }] as const),
    ([a, b]) => ({ first: a!, second: b! }),
  ),
  relays(4),
  relays(8),
  ...["discrete/led-rgb-cc", "discrete/led-rgb-ca"].map((part) =>
    acts(
      part,
      [0, 1, 2, 4, 7].map((v) => [v, { red: v % 2, green: (v >> 1) % 2, blue: v >> 2 }] as const),
      ([r, g, b]) => ({ red: r!, green: g!, blue: b! }),
    ),
  ),
  digit("discrete/digit-7seg-cc"),
  digit("discrete/digit-7seg-ca"),
  tone("module/buzzer-passive", [0, 440, 5000]),
  tone("discrete/speaker", [0, 440, 5000]),
  tone("discrete/gauge-12v", [0, 100, 400]),
  servo("module/servo-small"),
  servo("module/servo-large"),
  l298n,
  tb6612,
  drv8833,
  uln2003,
  a4988,
];
