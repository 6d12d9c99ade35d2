import { zodResolver } from "@hookform/resolvers/zod";
import type { Resolver } from "react-hook-form";
import * as z from "zod/mini";

/** What fields take, in one place; fetched with the first touch of a field. */

const numberOf = (t: string) => Number(t.trim().replace(",", "."));

/** A number as people type it, comma or point, between limits; `says` names it in the sentence when it is not. */
export const numberIn = (says: string, min: number, max: number, unit = "") =>
  z
    .pipe(z.string(), z.transform(numberOf))
    .check(
      z.refine((n) => Number.isFinite(n) && n >= min && n <= max, `${says} takes ${min} to ${max} ${unit}`.trim()),
    );

/** A whole number between limits. */
export const wholeIn = (says: string, min: number, max: number) =>
  z
    .pipe(z.string(), z.transform(numberOf))
    .check(
      z.refine((n) => Number.isInteger(n) && n >= min && n <= max, `${says}: a whole number from ${min} to ${max}.`),
    );

/** Any text, without the blanks around it. */
export const trimmed = z.pipe(
  z.string(),
  z.transform((t) => t.trim()),
);

/** Any text up to a length, without the blanks around it. */
export const textUpTo = (max: number) => trimmed.check(z.refine((t) => t.length <= max, `at most ${max} characters`));

/** A name that is not empty; `says` is the sentence when it is. */
export const nameUpTo = (max: number, says: string) => textUpTo(max).check(z.refine((t) => t.length > 0, says));

/** A printed pin name: blanks inside become underscores. */
export const pinName = z.pipe(
  textUpTo(20),
  z.transform((t) => t.replace(/\s+/g, "_")),
);

/** A length in centimetres, or nothing: then the house rule says it. */
export const centimetres = z
  .pipe(
    z.string(),
    z.transform((t) => (t.trim() === "" ? null : numberOf(t))),
  )
  .check(
    z.refine(
      (cm) => cm === null || (Number.isFinite(cm) && cm > 0 && cm <= 2000),
      "A length is a number of centimetres, from 1 to 2000.",
    ),
  );

/** Checks a form of one field. */
export const oneField = <T>(schema: z.ZodMiniType<T, string>): Resolver<{ v: string }, unknown, { v: T }> =>
  zodResolver(z.object({ v: schema })) as never;
