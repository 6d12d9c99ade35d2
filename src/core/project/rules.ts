import { z } from "zod";

const ref = z.string().max(20);
const out = z.string().min(1).max(20);
const number = z.number().min(-1_000_000_000).max(1_000_000_000);

/** When something is done: while a quantity is beyond a value, or again and again. */
const WhenSchema = z.union([
  z.strictObject({ ref, out, above: number, hysteresis: number.min(0).optional() }),
  z.strictObject({ ref, out, below: number, hysteresis: number.min(0).optional() }),
  z.strictObject({ ref, out, is: number }),
  /** At every change of a quantity: only to follow it. */
  z.strictObject({ ref, out }),
  z.strictObject({ every_s: z.number().min(0.05).max(86_400) }),
]);

const DoSchema = z.union([
  /** For as long as it holds. */
  z.strictObject({ ref, act: z.enum(["on", "off"]) }),
  z.strictObject({ ref, act: z.literal("set"), value: number }),
  /** Each time that it begins: over, one more, or the next of several. */
  z.strictObject({ ref, act: z.enum(["toggle", "count"]) }),
  z.strictObject({ ref, act: z.literal("next"), among: z.array(ref).min(1).max(20) }),
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

/** What is wrong with the rules of a document by itself: parts that are not there, and acts that need another occasion. */
export function ruleProblems(rules: readonly Rule[], refs: ReadonlySet<string>): { path: string; message: string }[] {
  return rules.flatMap((r, i) => {
    const path = `rules/${i}`;
    const gone = refsOf(r).find((x) => !refs.has(x));
    if (gone !== undefined) return [{ path, message: `there is no part "${gone}" in this project` }];
    const begins = "every_s" in r.when;
    const bare = "ref" in r.when && !("above" in r.when || "below" in r.when || "is" in r.when);
    const { act } = r.do;
    if (bare !== (act === "follow"))
      return [
        {
          path,
          message: bare
            ? 'a rule without "above", "below" or "is" can only "follow" its quantity'
            : '"follow" takes a quantity alone, without "above", "below" or "is"',
        },
      ];
    return begins && !["toggle", "count", "next"].includes(act)
      ? [{ path, message: `"every_s" is a moment, not a while: it can "toggle", "count" or go on to the "next"` }]
      : [];
  });
}
