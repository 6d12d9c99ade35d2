import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MODELS } from "../../bench/models";
import type { BusPart, Model, World } from "../../bench/models/types";
import { shippedCatalogue } from "../../parts/catalogue/shipped";
import { DEVICES } from ".";
import { evaluate, FUNCTIONS, parse } from "./expression";
import { crc8, machineOf, type Wire } from "./run";
import type { Device, Step } from "./types";

const modelOf = (d: Device) => MODELS.find((m) => m.part === d.id)!;
const base = (name: string) => name.split("_")[0]!;
/** What a device read, by the names that the world has for it. */
const physical = (d: Device, out: ReadonlyMap<string, number>) =>
  new Map(d.out.map((q) => [base(q.name), out.get(q.name)! / 10 ** q.digits]));

/** Lets a machine run: everything that it has read, and whether the last reading still stands after so long. */
function run(d: Device, part: Wire, ms = 12_000) {
  const m = machineOf(d, part);
  const all: ReadonlyMap<string, number>[] = [];
  let now = 0;
  while (now < ms) {
    now += Math.max(1, m.turn(now));
    if (m.fresh) all.push(physical(d, m.out));
  }
  return { all, fresh: m.fresh };
}
const readings = (d: Device, part: Wire, ms?: number) => {
  const r = run(d, part, ms);
  return r.fresh ? r.all.at(-1)! : null;
};

/** Whether what was read is what the world holds, each quantity as near as its part's steps allow. */
const right = (got: ReadonlyMap<string, number> | null, m: Model, w: World) =>
  got !== null && Object.entries(w).every(([k, v]) => Math.abs((got.get(base(k)) ?? NaN) - v) <= m.within[k]! + 1e-9);

/** As it is with a part that does not acknowledge until a time, and not any more from another. */
const between = (part: BusPart, from: number, until: number): Wire => ({
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

/** Everything about a step that can be wrong: each byte turned over, each register the next, each order of bytes, each wait gone. */
const MUTANTS: { [K in Step["do"]]: (s: Extract<Step, { do: K }>) => Step[] } = {
  write: (s) =>
    s.bytes.flatMap((b, i) =>
      typeof b === "number"
        ? [b ^ 0xff, (b + 1) & 0xff].map((x) => ({ ...s, bytes: s.bytes.map((y, k) => (k === i ? x : y)) }))
        : turned(b).map((x) => ({ ...s, bytes: s.bytes.map((y, k) => (k === i ? x : y)) })),
    ),
  read: (s) =>
    s.from === undefined
      ? []
      : [
          { ...s, from: (s.from + 1) & 0xff },
          { ...s, from: s.from ^ 0xff },
        ],
  wait: () => [],
  until: (s) => [{ ...s, read: { ...s.read, from: (s.read.from ?? 0) ^ 0xff } }],
  crc: (s) => [
    { ...s, poly: s.poly ^ 0x02 },
    { ...s, init: s.init ^ 0xff },
    { ...s, n: s.n - 1 },
  ],
  must: (s) => turned(s.holds).map((holds) => ({ ...s, holds })),
  let: (s) => turned(s.is).map((is) => ({ ...s, is })),
};
function mutants(d: Device): { says: string; device: Device }[] {
  const of = (where: "begin" | "read") => [
    ...d[where].flatMap((s, i) =>
      s.do === "wait"
        ? [{ says: `${where} ${i}: no wait`, device: { ...d, [where]: d[where].filter((_, k) => k !== i) } }]
        : [],
    ),
    ...d[where].flatMap((s, i) =>
      (MUTANTS[s.do] as (s: Step) => Step[])(s).map((x) => ({
        says: `${where} ${i}: ${JSON.stringify(s)} as ${JSON.stringify(x)}`,
        device: { ...d, [where]: d[where].map((y, k) => (k === i ? x : y)) },
      })),
    ),
  ];
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
  // The number of bits of the bus converter.
  "module/ina219": [/\[0,57,159\]} as .*\[0,58,159\]}$/],
  // The width of its filter.
  "module/lsm6ds3": [/\[16,64\]} as .*\[16,65\]}$/],
  // How full its queue is when it raises its interrupt.
  "module/max30102": [/\[8,16\]} as .*\[8,17\]}$/],
  // Which clock it runs from; the filter for its motion interrupt.
  "module/mpu6050": [/\[107,0\]} as .*\[107,1\]}$/, /\[28,0\]} as .*\[28,1\]}$/],
};

const survives = (d: Device, original: Device) => {
  const m = modelOf(original);
  return m.worlds.every((w) => {
    try {
      // Not one wrong reading, the first one included.
      const r = run(d, m.make(w));
      return r.fresh && r.all.every((x) => right(x, m, w));
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
    expect(DEVICES.length).toBeGreaterThanOrEqual(23);
  });
  it.each(DEVICES.map((d) => [d.id, d] as const))("%s reads what the part feels", (_id, d) => {
    const m = modelOf(d);
    for (const w of m.worlds) {
      const got = readings(d, m.make(w));
      expect(got, JSON.stringify(w)).not.toBeNull();
      for (const [k, v] of Object.entries(w))
        expect(Math.abs(got!.get(base(k))! - v), `${k} ${got!.get(base(k))} for ${v}`).toBeLessThanOrEqual(
          m.within[k]! + 1e-9,
        );
    }
  });
  it.each(DEVICES.map((d) => [d.id, d] as const))("%s is taken back when it comes late or was gone", (_id, d) => {
    const m = modelOf(d);
    const [w] = m.worlds;
    expect(right(readings(d, between(m.make(w!), 2500, Infinity), 20_000), m, w!)).toBe(true);
    expect(readings(d, between(m.make(w!), 0, 9000), 20_000)).toBeNull();
  });
  it.each(DEVICES.map((d) => [d.id, d] as const))("%s: every mutant is caught", (_id, d) => {
    const same = SAME[d.id] ?? [];
    const alive = mutants(d)
      .filter((x) => survives(x.device, d))
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
