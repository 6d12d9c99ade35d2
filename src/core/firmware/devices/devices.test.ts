import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MODELS } from "../../bench/models";
import type { As, BusPart, Model, World } from "../../bench/models/types";
import { shippedCatalogue } from "../../parts/catalogue/shipped";
import { DEVICES, wired } from ".";
import { LANE_SHIFT } from "./lanes";
import { evaluate, FUNCTIONS, parse } from "./expression";
import { crc8, machineOf, type Wire } from "./run";
import type { Device, Step } from "./types";

const modelOf = (d: Device) => MODELS.find((m) => m.part === d.id)!;
const base = (name: string) => name.split("_")[0]!;
/** What a device read, by the names that the world has for it. */
const physical = (d: Device, out: ReadonlyMap<string, number>) =>
  new Map(d.out.map((q) => [base(q.name), out.get(q.name)! / 10 ** q.digits]));

/** Every device in each of its wirings. */
const CASES = DEVICES.flatMap((k) =>
  k.cases.map((w) => [`${k.id} ${JSON.stringify(w)}`, k.of(wired(w)), { chain: 1, ...w } as As] as const),
);

/** Lets a machine run: everything that it has read, and whether the last reading still stands after so long. */
function run(d: Device, part: Wire, ms = 12_000, settles = 0) {
  const m = machineOf(d, part);
  const all: ReadonlyMap<string, number>[] = [];
  let now = 0;
  // When it had its first reading.
  let first = Infinity;
  while (now < ms) {
    now += Math.max(1, m.turn(now));
    if (m.fresh) first = Math.min(first, now);
    if (m.fresh && now > settles) all.push(physical(d, m.out));
  }
  return { all, fresh: m.fresh, first };
}
const readings = (d: Device, part: Wire, ms?: number) => {
  const r = run(d, part, ms);
  return r.fresh ? r.all.at(-1)! : null;
};

/** Whether what was read is what the world holds, each quantity as near as its part's steps allow. */
const right = (got: ReadonlyMap<string, number> | null, m: Model, w: World) =>
  got !== null &&
  Object.entries(w).every(([k, v]) => !got.has(base(k)) || Math.abs(got.get(base(k))! - v) <= m.within[k]! + 1e-9) &&
  [...got.keys()].every((k) => Object.keys(w).some((x) => base(x) === k));

const felt = (m: Model, w: World, as: As) => m.feels?.(w, as) ?? w;

/** How long a part is given for each thing that it is told, ms. */
const ACTS_MS = 700;
/** What went wrong when a part was told everything that its model lists, one after the other; nothing when it did all. */
function amiss(d: Device, part: BusPart, m: Model, as: As): string[] {
  const machine = machineOf(d, part);
  let now = 0;
  // Outputs that are told one by one: what they are told before the part answers is not lost.
  const early = (d.lanes ?? []).flatMap((_, k) =>
    (as.outs ?? 0) & (1 << k) ? [[k, (1234 * (k + 1)) % 4096] as const] : [],
  );
  for (const [k, on] of early.toReversed()) machine.lane(k, on, now);
  // Until a large glass was cleared.
  while (now < (m.settles ?? (early.length ? 200 : 0))) now += Math.max(1, machine.turn(now));
  const lost = early.filter(([k, on]) => part.is!(now)[`on_${k}`] !== on).map(([k]) => `output ${k} was not told`);
  for (const [k] of early) machine.lane(k, d.lanes![k]!, now);
  const missed = m.wants!(as).flatMap(([want, does]) => {
    if (d.lanes) machine.lane(want >> LANE_SHIFT, want & (2 ** LANE_SHIFT - 1), now);
    else machine.want = want;
    for (const end = now + (m.acts ?? ACTS_MS); now < end;) now += Math.max(1, machine.turn(now));
    const is = part.is!(now);
    const well =
      machine.fresh && Object.entries(does).every(([k, v]) => Math.abs(is[k]! - v) <= (m.within[k] ?? 0) + 1e-9);
    return well ? [] : [`told ${want}: ${JSON.stringify(is)} instead of ${JSON.stringify(does)}`];
  });
  return [...lost, ...missed];
}

/** As it is with a part that does not acknowledge until a time, and not any more from another. */
const between = (part: BusPart, from: number, until: number): Wire => ({
  pin: (label, level, now) => part.pin?.(label, level, now),
  ask: (b, n, now) => {
    if (now < from || now >= until) return null;
    return part.ask ? part.ask(b, n, now) : part.write(b, now) ? part.read(n, now) : null;
  },
  write: (b, now) => now >= from && now < until && part.write(b, now),
  read: (n, now) => (now >= from && now < until ? part.read(n, now) : null),
});

const turned = (text: string): string[] => {
  const other: Record<string, string[]> = {
    u16be: ["u16le"],
    u16le: ["u16be"],
    s16be: ["s16le", "u16be"],
    s16le: ["s16be", "u16le"],
    u24be: ["u16be"],
    bcd: ["u8"],
  };
  const names = [...text.matchAll(/\b[us]\d+[bl]?e?\b|\bbcd\b/g)].flatMap((x) =>
    (other[x[0]] ?? []).map((o) => text.slice(0, x.index) + o + text.slice(x.index + x[0].length)),
  );
  const places = [...text.matchAll(/\((\d+)\)/g)].map(
    (x) => `${text.slice(0, x.index)}(${Number(x[1]) + 1})${text.slice(x.index + x[0].length)}`,
  );
  return [...names, ...places];
};

const other = (from: number | readonly number[] | undefined): (number | readonly number[])[] => {
  const list = [from ?? 0].flat();
  return list.flatMap((v, i) => [v ^ 0xff, (v + 1) & 0xff].map((x) => list.map((y, k) => (k === i ? x : y))));
};

/** Everything about a step that can be wrong: each byte turned over, each register the next, each order of bytes, each wait gone. */
const MUTANTS: { [K in Exclude<Step["do"], "each">]: (s: Extract<Step, { do: K }>, plain: boolean) => Step[] } = {
  write: (s, plain) =>
    s.bytes.flatMap((b, i) =>
      typeof b === "number"
        ? // A pin is high or low.
          (plain ? [b ? 0 : 1] : [b ^ 0xff, (b + 1) & 0xff]).map((x) => ({
            ...s,
            bytes: s.bytes.map((y, k) => (k === i ? x : y)),
          }))
        : [...turned(b), ...(plain ? [`1 - (${b})`] : [`255 - (${b})`, `(${b}) + 1`])].map((x) => ({
            ...s,
            bytes: s.bytes.map((y, k) => (k === i ? x : y)),
          })),
    ),
  read: (s) => (s.from === undefined ? [] : other(s.from).map((from) => ({ ...s, from }))),
  wait: () => [],
  until: (s) => (s.read.from === undefined ? [] : [{ ...s, read: { ...s.read, from: other(s.read.from)[0]! } }]),
  pin: (s) => [{ ...s, level: s.level ? 0 : 1 }],
  crc: (s) => [
    ...(s.way === "sum" ? [] : [{ ...s, poly: s.poly ^ 0x02 }]),
    { ...s, init: s.init ^ 0xff },
    { ...s, n: s.n - 1 },
  ],
  must: (s) => turned(s.holds).map((holds) => ({ ...s, holds })),
  let: (s) => turned(s.is).map((is) => ({ ...s, is })),
};
/** A list of steps with one of them changed, each with what was changed; inside of loops too. */
function changed(steps: readonly Step[], plain: boolean): { says: string; steps: readonly Step[] }[] {
  const put = (i: number, ...x: Step[]) => [...steps.slice(0, i), ...x, ...steps.slice(i + 1)];
  return steps.flatMap((s, i) => {
    if (s.do === "wait") return [{ says: `${i}: no wait`, steps: put(i) }];
    if (s.do === "each")
      return [
        ...[-1, 1].map((by) => ({ says: `${i}: each ${s.n} ${by}`, steps: put(i, { ...s, n: s.n + by }) })),
        ...changed(s.steps, plain).map((x) => ({ says: `${i}.${x.says}`, steps: put(i, { ...s, steps: x.steps }) })),
      ];
    const more =
      s.do === "write" && s.times
        ? [
            { ...s, times: s.times - 1 },
            { ...s, times: s.times + 1 },
          ]
        : [];
    return [...(MUTANTS[s.do] as (s: Step, plain: boolean) => Step[])(s, plain), ...more].map((x) => ({
      says: `${i}: ${JSON.stringify(s)} as ${JSON.stringify(x)}`,
      steps: put(i, x),
    }));
  });
}
function mutants(d: Device): { says: string; device: Device }[] {
  const of = (where: "begin" | "read") =>
    changed(d[where], d.over?.kind === "pins").map((x) => ({
      says: `${where} ${x.says}`,
      device: { ...d, [where]: x.steps },
    }));
  return [...of("begin"), ...of("read")];
}

/**
 * Mutants that change nothing a person could measure, each with its reason. A number of a setting whose other values give the
 * same readings, a status bit that happens to be set as well: nothing else may stand here.
 */
const SAME: Record<string, readonly RegExp[]> = {
  // The comparator's settings move its alert pin alone.
  "module/ads1115": [/,131\]} as .*,132\]}$/],
  // In full resolution every range has the same step; how often it wakes counts asleep only.
  "module/adxl345": [/\[49,8\]} as .*\[49,9\]}$/, /\[45,8\]} as .*\[45,9\]}$/],
  // Signed by its data sheet, positive in every chip: a warmer sensor counts up.
  "module/bmp280": [/"t2","is":"s16le\(2\)"} as .*u16le\(2\)/],
  "module/bme280": [/"[th]2","is":"s16le\((2|0)\)"} as .*u16le\((2|0)\)/],
  // The number of bits of the bus converter.
  "module/ina219": [/\[0,57,159\]} as .*\[0,58,159\]}$/],
  // The width of its filter.
  "module/lsm6ds3": [/\[16,64\]} as .*\[16,65\]}$/],
  // How full its queue is when it raises its interrupt.
  "module/max30102": [/\[8,16\]} as .*\[8,17\]}$/],
  // How bright it is; where sixteen zeros begin in a ring of sixteen; what goes with a register that does nothing.
  "module/max7219-digits": [/\[(10,4,?)+\]} as .*10,5/, /\[0,0,0,0,\d,".*\[\d+,\d+,\d+,\d+,\d,"(?!255)/],
  "module/max7219-matrix": [/\[(10,4,?)+\]} as .*10,5/],
  "module/ht16k33-digits": [/\[0,0(,0)+\]} as .*\[1,0(,0)+\]}$/, /\[231\]} as .*\[232\]/],
  // A flag that can't be written; how far its clock is divided for others; bits that only long identifiers have. What it was told
  // to do and what it does read alike once it does it.
  "module/mcp2515": [
    /\[2,96,96\]} as .*\[2,96,97\]/,
    /\[2,15,(64|96)\]} as .*\[2,15,(65|97)\]/,
    /\[64,36,96,0,0,1,165\]} as .*\[64,36,9(7,0,0|6,255,0|6,1,0|6,0,255|6,0,1),1,165\]/,
    /"from":\[3,14\]} as .*"from":\[3,15\]}$/,
  ],
  // How often it is asked whether it is awake; what counts for nothing in a question: its bytes, and checksums after the first two.
  ...Object.fromEntries(
    ["sd-3v3", "sd-shifted"].map((id) => [
      `module/${id}`,
      [
        /each 50 -?1$/,
        /\[119,0,0,0,0,101\]/,
        /\[105,64,0,0,0,119\]\} as .*\[105,(65|64,)/,
        /\[122,0,0,0,0,253\]\} as .*\[122,/,
        /\[72,0,0,1,170,135\]\} as .*\[(73|72,)/,
      ],
    ]),
  ),
  // Bytes that are only counted.
  "module/max3485": [/\[51\]\} as/, /\[85,167\]\} as .*,167\]/],
  "module/max485": [/\[51\]\} as/, /\[85,167\]\} as .*,167\]/],
  // What is clocked out at the end counts for nothing; lights that are not there.
  "module/apa102-strip": [
    /"bytes":\[0\],"times":\d+\} as .*"bytes":\[(255|1)\]/,
    /each \d+ 1$/,
    /"bytes":\[0\],"times":\d+\} as/,
  ],
  // Pull-ups of outputs.
  "module/mcp23017": [/\[12,254,240\]\} as .*\[12,25[45],24[01]\]/],
  // A flag that can't be written.
  "module/nrf24l01": [/\[39,112\]} as .*\[39,113\]/],
  // How long it waits for a card, within what a card needs; what one answer leaves is sent at a call that none answers; the bit that
  // starts a call is cleared, which the next command does as well.
  "module/rc522": [/\[(86|88|90),(169|3|232)\]} as .*\[(86|88|90),/, /\[90,232\]/, /\[20,128\]/, /\[26,7\]/],
  // Its alarms, which nobody asks for.
  "module/ds18b20": [/\[204,78,75,70,127\]} as .*\[204,78,(180|76|75),(70|185|71),127\]/],
  // Any of four bytes not 0, looked at twice.
  "module/dht22": [/"must"/],
  "module/dht11": [/"must"/],
  // Other calls that it may hear; a bit that switches an output off stands above its numbers.
  "module/pca9685": [/\[0,(48|32)\]} as .*\[0,(49|33)\]/, /\[250,0,0,0,16\]} as .*\[250,\d+,\d+,\d+,(16|17)\]/],
  // One row follows the other by itself; dots beyond the last begin again at the first; a digit more lies outside of the glass; a window may be higher than what is put
  // into it.
  ...Object.fromEntries(
    ["st7735", "st7789", "ili9341", "ssd1306-spi", "ssd1306-i2c"].map((id) => [
      `module/${id}`,
      [
        /each \d+ 1$/,
        /"times":(60|66|128)\} as .*"times":(61|67|129)\}$/,
        /"y0 & 255","y1 >> 8","y1 & 255"\]\} as .*"y0 >> 8","y0 & 255",/,
        /33,0,125,34,"r","r"\]\} as .*33,0,(126,34,"r","r"|125,34,"r",|125,(221|35),)/,
      ],
    ]),
  ),
  // Waits before a longer one, or that the bus takes anyway.
  "module/lcd1602-i2c": [/^begin 8: no wait/],
  "module/lcd2004-i2c": [/^begin 8: no wait/],
  "module/lcd1602-parallel": [/^(begin 27|read 0\.6\.5): no wait/],
  // Which clock it runs from; the filter for its motion interrupt.
  "module/mpu6050": [/\[107,0\]} as .*\[107,1\]}$/, /\[28,0\]} as .*\[28,1\]}$/],
};

const survives = (d: Device, original: Device, as: As) => {
  const m = modelOf(original);
  if (m.wants && original.takes)
    try {
      if (amiss(d, m.make({}, as), m, as).length) return false;
      if (!original.out.length) return true;
    } catch {
      return false;
    }
  return m.worlds.every((w) => {
    try {
      // Not one wrong reading, the first one included, and none that came only at the second try.
      const r = run(d, m.make(w, as), 12_000, m.settles);
      const plain = run(original, m.make(w, as), 2000);
      return r.fresh && r.first < plain.first + 150 && r.all.every((x) => right(x, m, felt(m, w, as)));
    } catch {
      return false;
    }
  });
};

describe("devices", () => {
  it("each have a model, and each model a device", () => {
    expect(DEVICES.map((d) => d.id).sort()).toEqual(MODELS.map((m) => m.part).sort());
    const parts = new Set(shippedCatalogue().parts.map((p) => p.id));
    for (const d of DEVICES) expect(parts, d.id).toContain(d.id);
    expect(DEVICES.length).toBeGreaterThanOrEqual(70);
  });
  it.each(CASES)("%s reads what the part feels, and does what it is told", (_id, d, as) => {
    const m = modelOf(d);
    expect(d.takes === undefined || m.wants !== undefined).toBe(true);
    if (m.wants && d.takes) expect(amiss(d, m.make({}, as), m, as)).toEqual([]);
    if (!d.out.length) return;
    for (const w of m.worlds) {
      const got = readings(d, m.make(w, as));
      expect(got, JSON.stringify(w)).not.toBeNull();
      expect(right(got, m, felt(m, w, as)), `${JSON.stringify([...got!])} for ${JSON.stringify(w)}`).toBe(true);
    }
  });
  // What hangs on plain pins can't be missed: it gives no answer.
  it.each(CASES.filter(([, d]) => d.over?.kind !== "pins" && d.out.length))(
    "%s is taken back when it comes late or was gone",
    (_id, d, as) => {
      const m = modelOf(d);
      const [w] = m.worlds;
      expect(right(readings(d, between(m.make(w!, as), 2500, Infinity), 20_000), m, felt(m, w!, as))).toBe(true);
      expect(readings(d, between(m.make(w!, as), 0, 9000), 20_000)).toBeNull();
    },
  );
  /** Large glasses take long and have the program of the smaller one with other numbers: whole in the whole set. */
  const LARGE = ["module/ili9341", "module/st7789"];
  const HERE = CASES.filter(([, d]) => process.env.ALL || !LARGE.includes(d.id));
  /** Of the smaller one every fifth by turns, all of them in the whole set. */
  const SLOW = ["module/st7735"];
  const tried = (d: Device) =>
    process.env.ALL || !SLOW.includes(d.id) ? mutants(d) : mutants(d).filter((_, i) => i % 5 === 2);
  it.each(HERE)("%s: every mutant is caught", (_id, d, as) => {
    const same = SAME[d.id] ?? [];
    const alive = tried(d)
      .filter((x) => survives(x.device, d, as))
      .map((x) => x.says)
      .filter((says) => !same.some((r) => r.test(says)));
    expect(alive).toEqual([]);
  });
});

describe("expressions", () => {
  const value = (text: string, bytes: number[] = [], names: [string, number][] = []) =>
    evaluate(parse(text), new Map(names), bytes);
  it("count as C does", () => {
    expect(value("2 + 3 * 4")).toBe(14);
    expect(value("-7 / 2")).toBe(-3);
    expect(value("-7 % 2")).toBe(-1);
    expect(value("-8 >> 1")).toBe(-4);
    expect(value("1 + 2 << 3")).toBe(24);
    expect(value("(0x12 & 0x0F) == 2 ? 5 : 6")).toBe(5);
    expect(value("s16be(0) + s8(1)", [0xff, 0xfe])).toBe(-4);
    expect(value("u24be(0)", [1, 2, 3])).toBe(0x010203);
    expect(value("bcd(0) + u16le(0)", [0x59, 0x01])).toBe(59 + 0x159);
    expect(value("abs(x)", [], [["x", -4]])).toBe(4);
  });
  it("refuse what would differ between languages", () => {
    expect(() => value("65536 * 65536")).toThrow(/32 bits/);
    expect(() => value("u8(3)", [1])).toThrow(/byte 3/);
    expect(() => value("1 / 0")).toThrow();
    expect(() => value("y")).toThrow(/y has no value/);
  });
  it("are refused where they are none", () => {
    for (const bad of ["1 +", "(1", "1 2", "foo(1)", "a $ b", "", "1 ? 2"]) expect(() => parse(bad), bad).toThrow();
    expect(FUNCTIONS).toContain("s16le");
  });
  it("agree with the language's own arithmetic", () => {
    fc.assert(
      fc.property(fc.integer({ min: -30_000, max: 30_000 }), fc.integer({ min: 1, max: 300 }), (a, b) => {
        expect(
          value(
            "a * 3 + a / b - a % b",
            [],
            [
              ["a", a],
              ["b", b],
            ],
          ),
        ).toBe(a * 3 + Math.trunc(a / b) - (a % b));
      }),
    );
  });
  it("and checksums with the ones of the data sheets", () => {
    expect(crc8([0xbe, 0xef], 0x31, 0xff)).toBe(0x92);
    expect(crc8([0x80, 0x00], 0x31, 0xff)).toBe(0xa2);
    expect(crc8([0x66, 0x66], 0x31, 0xff)).toBe(0x93);
  });
});
