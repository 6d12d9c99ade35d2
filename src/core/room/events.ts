import { z } from "zod";
import { BENCH_LISTS } from "../project";

/** What a bench does, as it tells the teacher's view. */
export const DidSchema = z.discriminatedUnion("kind", [
  /** A step or a check, done or not, with what was read. */
  z.strictObject({
    kind: z.literal("tick"),
    list: z.enum(BENCH_LISTS),
    of: z.string().min(1).max(120),
    done: z.boolean(),
    reading: z.string().max(80).optional(),
  }),
  /** A hand is up, or down again. */
  z.strictObject({ kind: z.literal("hand"), up: z.boolean(), why: z.string().max(200) }),
  /** How the hidden fault was found, or not. */
  z.strictObject({
    kind: z.literal("fault"),
    level: z.string().max(20),
    seed: z.number().int().min(0).max(999_999),
    points: z.number().int().min(0).max(100),
    measured: z.number().int().min(0).max(1000),
    minutes: z.number().min(0).max(10_000),
    found: z.boolean(),
  }),
]);
export type Did = z.infer<typeof DidSchema>;

/** One event with a name of its own, so that the same one sent twice counts once; `ago_ms`: how long ago, by the bench's clock. */
export const EventSchema = z.strictObject({
  id: z.string().min(8).max(40),
  ago_ms: z.number().int().min(0).max(86_400_000),
  did: DidSchema,
});
export type BenchEvent = z.infer<typeof EventSchema>;

export const MOST_EVENTS = 200;
/** What a bench sends when it asks for news. */
export const TalkSchema = z.strictObject({
  events: z.array(EventSchema).max(MOST_EVENTS),
  rev: z.number().int().min(-1),
});

/** What the teacher does to a bench. */
export const TellSchema = z.strictObject({
  bench: z.union([z.number().int().min(1).max(60), z.literal("all")]),
  do: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("hint"), text: z.string().trim().max(300) }),
    z.strictObject({ kind: z.literal("freeze"), on: z.boolean() }),
    /** Deals a fault of the trainer; `each`: another for every bench. Null takes it back. */
    z.strictObject({
      kind: z.literal("fault"),
      fault: z
        .strictObject({
          level: z.string().min(1).max(20),
          seed: z.number().int().min(0).max(999_999),
          each: z.boolean().optional(),
        })
        .nullable(),
    }),
    z.strictObject({ kind: z.literal("sign"), step: z.string().min(1).max(120) }),
    /** The teacher was there: the hand goes down. */
    z.strictObject({ kind: z.literal("seen") }),
  ]),
});
export type Tell = z.infer<typeof TellSchema>;

/** What holds for a bench now, as the teacher has set it. */
export interface Control {
  rev: number;
  frozen: boolean;
  hint: { text: string; at: string } | null;
  fault: { level: string; seed: number } | null;
  signed: string[];
}
export const FREE: Control = { rev: 0, frozen: false, hint: null, fault: null, signed: [] };
