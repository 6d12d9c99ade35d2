import { z } from "zod";

/** How sure a part's data are. */
export const CertaintySchema = z.enum(["high", "medium", "low"]);

/** How sure a single value or a print is; `assumed`: a rule of thumb, or an order, that nobody looked up. */
export const StandingSchema = z.enum([...CertaintySchema.options, "assumed"]);
export type Standing = z.infer<typeof StandingSchema>;
