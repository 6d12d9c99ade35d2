import { z } from "zod";
import { CertaintySchema } from "../catalogue/certainty";
import { PartSchema } from "../catalogue/schema";
import {
  OWN_COMPANIONS,
  OWN_FEEDS,
  OWN_LAYOUTS,
  OWN_ROLES,
  OWN_TIES,
  type OwnCompanion,
  type OwnFeed,
  type OwnLayout,
  type OwnRole,
  type OwnTie,
} from "./roles";

/** Everything that the editor holds, as typed. It becomes a part by `buildPart`; nothing that was typed is thrown away. */
const roles = Object.keys(OWN_ROLES) as [OwnRole, ...OwnRole[]];
const keysOf = <K extends string>(o: Record<K, unknown>) => Object.keys(o) as [K, ...K[]];
const field = z.string().max(300).default("");
const name = z.string().max(40).default("");
const flag = z.boolean().default(false);
/** The place in the part that it came from; absent for what was added here. */
const from = z.number().int().min(0).optional();
export const DraftPinSchema = z.strictObject({
  label: z.string().max(40),
  role: z.enum(roles),
  says: field,
  supply: z.string().max(40).default("main"),
  optional: z.boolean().default(false),
  tie: z.enum(keysOf<OwnTie>(OWN_TIES)).default(""),
  tiePin: name,
  /** Must not float, and what the part itself holds it at when it is left open. */
  floats: flag,
  rests: z.enum(["", "low", "high"]).default(""),
  /** The pin of the part that this one was copied from; used as it was while the role stays the same. */
  from: z.string().max(40).optional(),
});
export const DraftSupplySchema = z.strictObject({
  key: z.string().max(40),
  V: field,
  idle: field,
  typ: field,
  peak: field,
  absMax: field,
  VIH: field,
  VIL: field,
  VOH: field,
  VOL: field,
  top: field,
  pin_mA: field,
  /** What hangs on it draws far more than the part itself. */
  forLoads: flag,
});
export const DraftFeedSchema = z.strictObject({
  source: name,
  to: name,
  how: z.enum(keysOf<OwnFeed>(OWN_FEEDS)).default("linear"),
  V: field,
  dropout: field,
  limit: field,
  from,
});
export const DraftCompanionSchema = z.strictObject({
  key: z.enum(keysOf<OwnCompanion>(OWN_COMPANIONS)).default("decoupling"),
  pin: name,
  to: name,
  value: field,
  required: flag,
  because: field,
  from,
});
export const DraftChannelSchema = z.strictObject({ in: name, out: name, both: flag, enable: name, ohm: field, from });
export const DraftGateSchema = z.strictObject({
  pin: name,
  open: z.enum(["low", "high"]).default("high"),
  says: field,
  from,
});
/** One way of setting the address: this pin to that place. */
export const DraftStrapSchema = z.strictObject({
  address: field,
  pin: name,
  to: z.enum(["ground", "supply", "open"]).default("ground"),
});
export const OwnDraftSchema = z.strictObject({
  id: z.string().max(60).default(""),
  /** Boards and chips can be copied and changed, not made from nothing. */
  kind: z.enum(["module", "discrete", "connector", "supply", "board", "chip"]).default("module"),
  name: field,
  does: field,
  sourceTitle: field,
  sourceWhere: field,
  certainty: CertaintySchema.default("medium"),
  pins: z.array(DraftPinSchema).max(150).default([]),
  supplies: z.array(DraftSupplySchema).max(6).default([]),
  address: field,
  clock: field,
  mode: field,
  pullUps: field,
  orientation: field,
  caution: field,
  width_mm: field,
  height_mm: field,
  header: z.enum(["male", "female", "pads", "leads", "wires", "screw", "plug"]).default("male"),
  solder: z.enum(["none", "headers", "leads", "wires"]).default("none"),
  feeds: z.array(DraftFeedSchema).max(12).default([]),
  companions: z.array(DraftCompanionSchema).max(20).default([]),
  channels: z.array(DraftChannelSchema).max(32).default([]),
  gates: z.array(DraftGateSchema).max(24).default([]),
  straps: z.array(DraftStrapSchema).max(24).default([]),
  layout: z.enum(keysOf<OwnLayout>(OWN_LAYOUTS)).default("one"),
  /** Of two rows: how many pins the first one has, how far apart they are, and which way the second one was typed. */
  firstRow: field,
  rowPitch: field,
  secondRow: z.enum(["down", "up"]).default("down"),
  /** A second kind of the same cable or board: the same pins, other names and roles. */
  variantName: field,
  variants: z
    .array(z.strictObject({ name: z.string().max(40), pins: z.array(DraftPinSchema).max(150) }))
    .max(4)
    .default([]),
  base: PartSchema.optional(),
});
export type OwnDraft = z.infer<typeof OwnDraftSchema>;
export type DraftPin = z.infer<typeof DraftPinSchema>;
export type DraftSupply = z.infer<typeof DraftSupplySchema>;
export type DraftFeed = z.infer<typeof DraftFeedSchema>;
export type DraftCompanion = z.infer<typeof DraftCompanionSchema>;
export type DraftChannel = z.infer<typeof DraftChannelSchema>;
export type DraftGate = z.infer<typeof DraftGateSchema>;
export type DraftStrap = z.infer<typeof DraftStrapSchema>;
