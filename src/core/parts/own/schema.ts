import { z } from "zod";
import { CertaintySchema } from "../catalogue/certainty";
import { PartSchema } from "../catalogue/schema";
import { OWN_ROLES, type OwnRole } from "./roles";

/** Everything that the editor holds, as typed. It becomes a part by `buildPart`; nothing that was typed is thrown away. */
const roles = Object.keys(OWN_ROLES) as [OwnRole, ...OwnRole[]];
const field = z.string().max(300).default("");
export const DraftPinSchema = z.strictObject({
  label: z.string().max(40),
  role: z.enum(roles),
  says: field,
  supply: z.string().max(40).default("main"),
  optional: z.boolean().default(false),
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
