import { z } from "zod";
import { StandingSchema } from "./certainty";
import { PRINTED_LABEL } from "./printed-label";

/** What stands beside a hole of a header, as it is printed. */
const printed = z.string().regex(PRINTED_LABEL, "a label as printed, up to 20 letters, digits and + - _ . ' /");
const short = z.string().regex(/^[A-Za-z][A-Za-z0-9_]{0,39}$/, "a short name of letters, digits and _");
const rows = z.array(z.array(printed).min(1).max(60)).min(1).max(2);

/**
 * How sellers print a part's header: labels in order as seen from the side with the print, the header at `edge`. One row
 * is read from left to right; two rows at the `sides` from top to bottom, the left one first; `ends`: two rows too far
 * apart, or too unlike, to stand on a breadboard together. A label is a pin's label, one of its aliases, or `NC`.
 */
export const PrintSchema = z.strictObject({
  id: short,
  /** How this print is told from the others: number of pins, a regulator beside the header. */
  says: z.string().min(1).max(120),
  rows,
  edge: z.enum(["bottom", "top", "sides", "ends"]),
  rowPitch_mm: z.number().positive().max(80).optional(),
  /** `assumed`: nobody looked; an order that the plan has to start from, and that a person has to confirm. */
  certainty: StandingSchema,
  /** Option values that go with this print: a board with a regulator takes 5 V. */
  when: z.record(short, z.string().max(40)).optional(),
});

/** The print of a part in somebody's hand: one of its known ones, or their own order. What it says is confirmed. */
export const ChosenPrintSchema = z.union([
  z.strictObject({ id: short }),
  z.strictObject({
    rows,
    rowPitch_mm: z.number().min(2).max(80).optional(),
    /** Where the one row is when it is read from left to right; left out: where such a part usually has it. */
    edge: z.enum(["bottom", "top"]).optional(),
    /** What labels mean that the definition doesn't know: one of its pins, or null: left open. */
    names: z.record(printed, printed.nullable()).optional(),
  }),
]);

export type Print = z.infer<typeof PrintSchema>;
export type ChosenPrint = z.infer<typeof ChosenPrintSchema>;
