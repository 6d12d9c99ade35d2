/**
 * What each part costs a program in flash and RAM, measured with the compiler for AVR: `npx tsx bench/costs.ts` writes
 * `src/core/firmware/memory/costs.json`; ways of talking as words behind it are measured anew alone. Parts that share a way of talking share its code, so each is measured beside another of
 * the same way; a second piece of the same part is measured beside the first.
 */
import fs from "node:fs";
import { circuitOf } from "../src/core/circuit";
import { COSTS, type Costs, type Size, type TargetCosts } from "../src/core/firmware/memory";
import { wayOf } from "../src/core/firmware/memory/way";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { sketch } from "../src/core/firmware/targets/sketch";
import { shippedCatalogue } from "../src/core/parts/catalogue/shipped";
import { assign } from "../src/core/plan/assign";
import { make } from "../src/core/testing";
import { compileC, compileSketch, coreArchive } from "../verify/avr/toolchain";

const catalogue = shippedCatalogue();
const parts = catalogue.parts.filter((p) => !p.board && p.bringup && p.pins.some((x) => x.need));
const LIGHT = "discrete/led-red";
const PROGRAMS = ["bringup", "starter"] as const;
type Sizes = Record<(typeof PROGRAMS)[number], Size>;

/** Sizes of both programs of a project, or null where it can't be planned. */
type Measure = (list: readonly string[]) => Sizes | null;

const planned = (host: string, supply: string, list: readonly string[]) => {
  const instances = list.map((part, i) => ({ ref: `M${i + 1}`, part }));
  const a = assign(make([{ ref: "B1", part: host }, { ref: "S1", part: supply }, ...instances] as never), catalogue);
  return a.status === "infeasible" ? null : circuitOf(a.project, catalogue);
};

const remembered = (measure: Measure): Measure => {
  const known = new Map<string, Sizes | null>();
  return (list) => {
    const key = list.join("|");
    if (!known.has(key)) known.set(key, measure(list));
    return known.get(key)!;
  };
};
const MEASURES: Record<string, { measure: Measure; target: typeof sketch }> = {
  sketch: {
    target: sketch,
    measure: remembered((list) => {
      const c = planned("board/atmega328p-long", "supply/usb-port", list);
      if (!c) return null;
      const size = (folder: string): Size => {
        const { flash, ram } = compileSketch("costs", sketch.files(c), folder);
        return [flash, ram];
      };
      return { bringup: size("bringup"), starter: size("starter") };
    }),
  },
  "avr-c": {
    target: avrC,
    measure: remembered((list) => {
      const c = planned("chip/atmega328p-dip28", "supply/usb-port", list);
      if (!c) return null;
      const size = (program: string): Size => {
        const { flash, ram } = compileC("costs", avrC.files(c), program, "atmega328p", 8_000_000);
        return [flash, ram];
      };
      return { bringup: size("bringup"), starter: size("main") };
    }),
  },
};

const less = (a: Sizes, b: Sizes): Sizes =>
  Object.fromEntries(
    PROGRAMS.map((k) => [k, a[k].map((v, i) => Math.max(0, v - b[k][i]!)) as unknown as Size]),
  ) as Sizes;

/** What does not fit is measured as far as the linker goes: a part alone always does. */
function tried<T>(work: () => T): T | null {
  try {
    return work();
  } catch {
    return null;
  }
}

/** Parts beside which others are measured that share nothing with them but what all share. */
const STRANGERS = ["module/max6675", "module/bh1750"];

/** The size in the middle of several. */
const middle = (list: readonly Sizes[]): Sizes =>
  Object.fromEntries(
    PROGRAMS.map((k) => [k, [0, 1].map((i) => list.map((s) => s[k][i]!).sort((a, b) => a - b)[list.length >> 1]!)]),
  ) as unknown as Sizes;

/** Ways to measure anew; all when there are none. */
const ONLY = process.argv.slice(2);

function costsOf(measure: Measure, known: TargetCosts | undefined): TargetCosts {
  // A program of nothing at all warns of loops over nothing: a light less than one light.
  const one = measure([LIGHT])!;
  const base = less(one, less(measure([LIGHT, LIGHT])!, one));
  const out: TargetCosts = {
    base,
    common: less(base, base),
    ways: ONLY.length ? { ...known?.ways } : {},
    parts: ONLY.length ? { ...known?.parts } : {},
  };
  const shared: Sizes[] = [];
  for (const way of new Set(parts.map(wayOf))) {
    if (ONLY.length && !ONLY.includes(String(way))) continue;
    const first = new Map(
      parts
        .filter((p) => wayOf(p) === way)
        .flatMap((p) => {
          const s = tried(() => measure([p.id]));
          return s ? [[p.id, s] as const] : [];
        }),
    );
    const stranger = STRANGERS.find((x) => wayOf(catalogue.get(x)!) !== way)!;
    const ofWay: Sizes[] = [];
    for (const [id, alone] of first) {
      let own: Sizes | null = null;
      if (way !== null)
        for (const [other, beside] of first) {
          if (other === id) continue;
          const both = tried(() => measure([other, id]));
          if (!both) continue;
          own = less(both, beside);
          break;
        }
      const apart = own && tried(() => measure([stranger, id]));
      if (own && apart) {
        const more = less(less(apart, measure([stranger])!), own);
        ofWay.push(more);
        shared.push(less(less(less(alone, base), own), more));
      }
      const twice = tried(() => measure([id, id]));
      const cost = own ?? less(alone, base);
      out.parts[id] = { first: cost, more: twice ? less(twice, alone) : cost };
    }
    if (way !== null && ofWay.length) out.ways[way] = middle(ofWay);
    console.log(way, first.size);
  }
  return { ...out, common: ONLY.length && known ? known.common : middle(shared) };
}

coreArchive();
const costs: Costs = Object.fromEntries(Object.entries(MEASURES).map(([id, m]) => [id, costsOf(m.measure, COSTS[id])]));
fs.writeFileSync(
  new URL("../src/core/firmware/memory/costs.json", import.meta.url),
  `${JSON.stringify(costs, null, 1).replace(/\[\n\s+(\d+),\n\s+(\d+)\n\s+\]/g, "[$1, $2]")}\n`,
);
