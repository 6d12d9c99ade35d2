import { z } from "zod";

const ref = z.string().max(20);
const out = z.string().min(1).max(20);
const number = z.number().min(-1_000_000_000).max(1_000_000_000);

const channel = z.number().int().min(1).max(16);
const seconds = z.number().min(0.05).max(86_400);
/** `07:30`, of 24 hours. */
const timeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time of day such as "07:30"');

/** When something is done: while a quantity is beyond a value, or again and again. */
const WhenSchema = z.union([
  z.strictObject({ ref, out, above: number, hysteresis: number.min(0).optional() }),
  z.strictObject({ ref, out, below: number, hysteresis: number.min(0).optional() }),
  z.strictObject({ ref, out, is: number }),
  /** At every change of a quantity: only to follow it. */
  z.strictObject({ ref, out }),
  z.strictObject({ every_s: seconds }),
  /** By a clock part: from one time of the day to another, over midnight too; or when it comes to one. */
  z.strictObject({ ref, from: timeOfDay, to: timeOfDay }),
  z.strictObject({ ref, at: timeOfDay }),
]);

const DoSchema = z.union([
  /** For as long as it holds. */
  z.strictObject({ ref, act: z.enum(["on", "off"]) }),
  z.strictObject({ ref, act: z.literal("set"), value: number }),
  /** Each time that it begins: over, one more, or the next of several. */
  z.strictObject({ ref, act: z.enum(["toggle", "count"]) }),
  /** ... or on for a while, begun anew each time. */
  z.strictObject({ ref, act: z.literal("for"), for_s: seconds }),
  /** ... or one thing after the other, each for a while, as often as `times` says; then it rests. */
  z.strictObject({
    ref,
    act: z.literal("sequence"),
    steps: z
      .array(z.strictObject({ value: z.union([number, z.enum(["on", "off"])]), for_s: seconds }))
      .min(1)
      .max(20),
    times: z.number().int().min(1).max(1000).optional(),
  }),
  z.strictObject({ ref, act: z.literal("next"), among: z.array(ref).min(1).max(20) }),
  /** To the computer, by a board that is a keyboard, a MIDI instrument or a game controller to it: while it holds, or as far as a quantity says. */
  z.strictObject({
    ref,
    act: z.literal("send"),
    send: z.union([
      z.strictObject({ key: z.string().min(1).max(10) }),
      z.strictObject({ note: z.number().int().min(0).max(127), channel: channel.optional() }),
      z.strictObject({ controller: z.number().int().min(0).max(127), channel: channel.optional() }),
      z.strictObject({ button: z.number().int().min(1).max(16) }),
      z.strictObject({ axis: z.enum(["x", "y", "z", "rx", "ry", "rz"]) }),
    ]),
  }),
  /** One line of all readings at the end of a file of a memory card. */
  z.strictObject({ ref, act: z.literal("log") }),
  /** Always as much as the quantity says. */
  z.strictObject({ ref, act: z.literal("follow") }),
]);

/** A sentence that a person writes: "When Distance is below 20 cm, Lamp is on." Values are in the unit that people read. */
export const RuleSchema = z.strictObject({ when: WhenSchema, do: DoSchema });
export type Rule = z.infer<typeof RuleSchema>;

/** All parts that a rule speaks of. */
export const refsOf = (r: Rule): string[] => [
  ...("ref" in r.when ? [r.when.ref] : []),
  r.do.ref,
  ...("among" in r.do ? r.do.among : []),
];

/** Parts that a rule tells how much: they follow a quantity or are set to a value; a sequence of ones and noughts is on and off. */
export const toldHowMuch = (rules: readonly Rule[]): ReadonlySet<string> =>
  new Set(
    rules.flatMap(({ do: d }) =>
      d.act === "follow" ||
      d.act === "set" ||
      (d.act === "sequence" && d.steps.some((s) => typeof s.value === "number" && s.value !== 0 && s.value !== 1))
        ? [d.ref]
        : [],
    ),
  );

/** What is wrong with the rules of a document by itself: parts that are not there, and acts that need another occasion. */
export function ruleProblems(rules: readonly Rule[], refs: ReadonlySet<string>): { path: string; message: string }[] {
  return rules.flatMap((r, i) => {
    const path = `rules/${i}`;
    const gone = refsOf(r).find((x) => !refs.has(x));
    if (gone !== undefined) return [{ path, message: `there is no part "${gone}" in this project` }];
    const moment = "every_s" in r.when ? "every_s" : "at" in r.when ? "at" : null;
    const bare = "out" in r.when && !("above" in r.when || "below" in r.when || "is" in r.when);
    const { act } = r.do;
    const far = "send" in r.do && ("controller" in r.do.send || "axis" in r.do.send);
    if (act === "send" && bare !== far)
      return [
        {
          path,
          message: far
            ? 'a controller or an axis follows a quantity: without "above", "below" or "is"'
            : 'a key, a note or a button is down while something holds: with "above", "below" or "is"',
        },
      ];
    if (act !== "send" && bare !== (act === "follow"))
      return [
        {
          path,
          message: bare
            ? 'a rule without "above", "below" or "is" can only "follow" its quantity'
            : '"follow" takes a quantity alone, without "above", "below" or "is"',
        },
      ];
    if ("from" in r.when && r.when.from === r.when.to)
      return [{ path, message: `from ${r.when.from} to ${r.when.to} is no time at all; "at" is for a moment` }];
    return moment && !["toggle", "count", "next", "for", "sequence", "log"].includes(act)
      ? [
          {
            path,
            message: `"${moment}" is a moment, not a while: it can "toggle", "count", be on "for" a while, go through a "sequence", "log" a line or go on to the "next"`,
          },
        ]
      : [];
  });
}
