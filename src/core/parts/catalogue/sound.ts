import { evaluate, expressionNames } from "../../quantity";
import type { Part } from "./schema";

/** A mistake in a part file: the path inside the file and a sentence. */
export interface PartProblem {
  path: string;
  message: string;
}

/** Keys whose value is an expression, wherever they stand in the sections that hold numbers. */
const EXPRESSIONS = new Set(
  `min typ max idle peak asleep limit_mA rint_ohm capacity_mAh VIH VIL VOH VOL outTyp_ohm outMax absMax absMin ohm tolerance F max_V max_mA`.split(
    " ",
  ),
);
/** Sections of a part with numbers, and what their expressions may name besides the part's options. */
const SECTIONS: { [K in "supplies" | "converters" | "levels" | "elements" | "companions"]: readonly string[] } = {
  supplies: [],
  converters: [],
  levels: ["V", "I"],
  elements: [],
  companions: [],
};
/** Nothing that is wired on a bench is beyond: ohms, hertz, watts. */
const MOST = 1e12;
/** What a companion can be: from a milliohm to a gigaohm, from a tenth of a picofarad to a hundred farads. */
const SOLD: Record<string, readonly [number, number]> = { ohm: [0.001, 1e9], F: [1e-13, 100] };
/** Quantities below zero that nobody can buy. */
const NEVER_NEGATIVE = new Set([
  "ohm",
  "rint_ohm",
  "F",
  "limit_mA",
  "capacity_mAh",
  "tolerance",
  "max_mA",
  "outTyp_ohm",
]);

/** The part's options at both their ends and as they are by default. */
function trials(part: Part): Record<string, number>[] {
  const numbers = part.options.flatMap((o) => (o.kind === "number" ? [o] : []));
  return (["default", "min", "max"] as const).map((k) => Object.fromEntries(numbers.map((o) => [o.key, o[k]])));
}

/** Every expression of the part has a value: names that are known, and no division by nothing at the ends of its options. */
export function expressions(part: Part): PartProblem[] {
  const out: PartProblem[] = [];
  const tried = trials(part);
  const judge = (path: string, key: string, x: string | number, more: readonly string[]) => {
    const known = new Set([...Object.keys(tried[0]!), ...more]);
    const unknown = expressionNames(x).find((n) => !known.has(n));
    if (unknown !== undefined)
      return out.push({
        path,
        message: `"${unknown}" is ${more.includes("V") ? "neither V, I nor" : "not"} an option of this part`,
      });
    const add = Object.fromEntries(more.map((n) => [n, n === "V" ? 3.3 : 0.001]));
    for (const vars of tried) {
      const v = evaluate(x, { ...vars, ...add });
      if (!Number.isFinite(v)) return out.push({ path, message: "has no value at an end of the part's options" });
      if (Math.abs(v) > MOST) return out.push({ path, message: `${v} is beyond anything on a bench` });
      const sold = path.startsWith("companions/") && Object.hasOwn(SOLD, key) ? SOLD[key]! : null;
      if (sold && (v < sold[0] || v > sold[1]))
        return out.push({ path, message: `${v} is no value that can be bought: ${sold[0]} to ${sold[1]}` });
      if (v < 0 && NEVER_NEGATIVE.has(key)) return out.push({ path, message: `${v} is below zero` });
    }
  };
  const walk = (v: unknown, path: string, key: string, more: readonly string[]): void => {
    if (typeof v === "number" || (typeof v === "string" && EXPRESSIONS.has(key))) {
      if (EXPRESSIONS.has(key)) judge(path, key, v, more);
      else if (typeof v === "number" && Math.abs(v) > MOST)
        out.push({ path, message: `${v} is beyond anything on a bench` });
    } else if (typeof v === "object" && v !== null)
      for (const [k, x] of Object.entries(v)) walk(x, path ? `${path}/${k}` : k, Array.isArray(v) ? key : k, more);
  };
  for (const [name, more] of Object.entries(SECTIONS)) walk(part[name as keyof typeof SECTIONS], name, "", more);
  return out.slice(0, 20);
}

/** What a driver that goes by pins needs of its part; adding one is a line. */
const DRIVERS: Record<string, (p: Part) => string | null> = {
  led: (p) => (p.pins.some((x) => x.need) ? null : "a light needs a pin that a board drives"),
  button: (p) => (p.pins.some((x) => x.need) ? null : "a contact needs a pin that a board reads"),
  ws2812b: (p) => (p.pins.some((x) => x.label === "DIN" && x.need) ? null : 'a strip needs its data pin, called "DIN"'),
  "key-grid": (p) => (p.addresses?.length ? null : "a grid of keys needs addresses: which pair of lines is which key"),
  "light-grid": (p) => (p.addresses?.length ? null : "a grid of lights needs addresses: which pair of lines is which"),
  "light-ring": (p) =>
    p.addresses?.length ? null : "lights on shared lines need addresses: which pair of lines is which",
  generic: () => null,
};
const PART_ID = /^(board|chip|module|discrete|supply|connector)\/[a-z0-9-]{1,40}$/;
/** Lines without which a group is no bus. */
const LINES: Partial<Record<Part["groups"][number]["kind"], readonly string[]>> = { i2c: ["sda", "scl"], spi: ["sck"] };

/** What programs and plans stand on: drivers that the part has pins for, buses with their lines, sources that can be wired. */
export function fit(part: Part): PartProblem[] {
  const out: PartProblem[] = [];
  const driver = part.bringup?.driver;
  if (driver !== undefined) {
    const why = Object.hasOwn(DRIVERS, driver)
      ? DRIVERS[driver]!(part)
      : PART_ID.test(driver)
        ? null
        : `there is no driver "${driver}"; there are ${Object.keys(DRIVERS).join(", ")}`;
    if (why) out.push({ path: "bringup/driver", message: why });
  }
  for (const [i, g] of part.groups.entries())
    for (const role of LINES[g.kind] ?? []) {
      const label = Object.hasOwn(g.pins, role) ? g.pins[role] : undefined;
      if (label === undefined)
        out.push({ path: `groups/${i}/pins`, message: `a group of kind ${g.kind} needs its ${role}` });
      else if (part.bringup && !part.board && !part.pins.some((p) => p.label === label && p.need))
        out.push({
          path: `groups/${i}/pins/${role}`,
          message: `the pin "${label}" asks for nothing of a board; give it a need of kind ${g.kind}`,
        });
    }
  for (const [k, s] of Object.entries(part.supplies)) {
    // What it gives may be led out by way of a converter inside.
    if (!s.source || !part.id.startsWith("supply/") || part.converters.some((c) => c.from === k)) continue;
    const gives = part.pins.some(
      (p) => p.supply === k && (p.role === "supply-out" || p.role === "supply-io" || p.role === "cable"),
    );
    if (!gives)
      out.push({ path: `supplies/${k}/source`, message: `it gives power, and no pin of the part leads it out` });
    else if (
      !part.pins.some((p) => p.role === "cable" && p.supply === k) &&
      !part.pins.some((p) => p.role === "ground" && (p.domain ?? "gnd") === s.domain)
    )
      out.push({ path: `supplies/${k}/domain`, message: `it gives power, and there is no ground pin for it` });
  }
  return out;
}
