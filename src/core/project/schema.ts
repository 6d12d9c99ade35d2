import { z } from "zod";
import { RuleSchema } from "./rules";
import { ChosenPrintSchema, CompanionRuleSchema, PartSchema } from "../parts/catalogue";
import {
  HOUSE_RULES,
  LESSON_AIMS,
  LESSON_LEVELS,
  SPARE_KINDS,
  WALLS,
  type HouseRuleKey,
  type LessonAim,
  type LessonLevel,
} from "./choices";

export * from "./choices";

/** The project file, `*.lattice.json`. The single source of the type, the validation and the shipped JSON Schema. */
export const PROJECT_VERSION = 1;
export const REF = /^[A-Z]{1,3}[0-9]{1,3}$/;

const ref = z.string().regex(REF, "a reference like M1: one to three capitals, then a number");
const endpoint = z
  .string()
  .max(30)
  .regex(
    /^[A-Z]{1,3}[0-9]{1,3}\.\S{1,20}$/,
    "an endpoint like M1.SDA: the part's reference, a dot, the printed pin label",
  );

const rule = <K extends keyof typeof HOUSE_RULES>(k: K) => z.enum(HOUSE_RULES[k]).optional();
export const HouseRulesSchema = z.strictObject({
  buttonPull: rule("buttonPull"),
  levelPolicy: rule("levelPolicy"),
  sharing: rule("sharing"),
  ledResistorSide: rule("ledResistorSide"),
  bounce: rule("bounce"),
  programStyle: rule("programStyle"),
  strips: rule("strips"),
  firstBuild: rule("firstBuild"),
  leads: rule("leads"),
  grounds: rule("grounds"),
  wireColours: z.array(z.string().min(1).max(20)).max(24).optional(),
});

/** Rules that a class has settled: who did, and which of them nobody changes. */
export const FixedRulesSchema = z.strictObject({
  by: z.string().trim().min(1).max(60),
  keys: z
    .array(z.enum(Object.keys(HOUSE_RULES) as [HouseRuleKey, ...HouseRuleKey[]]))
    .min(1)
    .max(20),
});

export const PlaceSchema = z.enum(["room", "shelter", "sun"]);

/** What resistors and capacitors there are: from a milliohm to a gigaohm, from a tenth of a picofarad to a hundred farads. */
const ohm = z.number().min(0.001).max(1e9);
const farad = z.number().min(1e-13).max(100);
/** A name of some letters, not only blanks. */
export const TitleSchema = z
  .string()
  .max(120)
  .refine((t) => t.trim() !== "", "a project has a name: some letters, not only blanks");

export const CompanionValueSchema = z.union([
  z.null(),
  z.literal("internal"),
  z.strictObject({
    ohm: z.union([ohm, z.tuple([ohm, ohm])]).optional(),
    F: farad.optional(),
    part: z.string().max(60).optional(),
    pin: z.string().max(20).optional(),
    /** Several pins that each get the same, such as all inputs of a part on a supply of its own. */
    pins: z.array(z.string().max(20)).min(1).max(32).optional(),
  }),
]);
/** What a part can ask for beside it is said once, by the catalogue. */
export const CompanionKeySchema = CompanionRuleSchema.shape.key;

/** What the person owns: parts by id with how many, and the values in the resistor and capacitor boxes. */
export const DrawerSchema = z.strictObject({
  parts: z.record(z.string().max(60), z.number().int().min(0).max(9999)).default({}),
  resistors_ohm: z.array(ohm).max(300).default([]),
  capacitors_F: z.array(farad).max(200).default([]),
  /** How the headers of the parts in it read, by id: confirmed once, for every project. */
  prints: z.record(z.string().max(60), ChosenPrintSchema).optional(),
});
export type Drawer = z.infer<typeof DrawerSchema>;
export const emptyDrawer = (): Drawer => ({ parts: {}, resistors_ohm: [], capacitors_F: [] });

/** A round of a board that sleeps between readings: how long it is, and for how much of it the program is awake, in seconds. */
export const SleepSchema = z.strictObject({
  every_s: z.number().int().min(5).max(86_400),
  awake_s: z.number().int().min(1).max(600),
});
export type Sleep = z.infer<typeof SleepSchema>;

export const ProjectPartSchema = z.strictObject({
  ref,
  part: z.string().max(60),
  label: z.string().max(60).optional(),
  host: ref.optional(),
  options: z.record(z.string().max(40), z.unknown()).optional(),
  /** How the header of the one in hand reads; until somebody has looked, the commonest print is taken. */
  print: ChosenPrintSchema.optional(),
  companions: z.partialRecord(CompanionKeySchema, CompanionValueSchema).optional(),
  /** Optional pins of the part that shall be wired. */
  wanted: z.array(z.string().max(20)).max(40).optional(),
  /** Groups (`uart`, `spi`, `i2c`) that the program may do on ordinary pins when no controller is left. */
  software: z.array(z.string().max(40)).max(8).optional(),
  wire_cm: z.number().positive().max(2000).optional(),
  /** A board that sleeps between readings. */
  sleep: SleepSchema.optional(),
});

/** A box of the loom drawing put somewhere by hand: beside which side of the board, and how far down, in drawing units. */
export const BoxPlaceSchema = z.strictObject({ side: z.enum(["left", "right"]), y: z.number().min(0).max(10_000) });

const mm = z.number().min(0).max(1000);
export const BoxSchema = z.strictObject({
  w_mm: z.number().min(20).max(1000),
  h_mm: z.number().min(20).max(1000),
  d_mm: z.number().min(5).max(500),
  /** Radius of its rounded corners; square when absent. */
  corner_mm: z.number().min(0).max(100).optional(),
  /** A short USB lead from the board to a socket in a wall. */
  usbLead: z.boolean().optional(),
  at: z.record(z.string().max(20), z.strictObject({ x: mm, y: mm, wall: z.enum(WALLS).optional() })),
});
export type Box = z.infer<typeof BoxSchema>;

export const KitSchema = z.strictObject({
  benches: z.number().int().min(1).max(60),
  spares_percent: z.partialRecord(z.enum(SPARE_KINDS), z.number().min(0).max(300)),
});
export type Kit = z.infer<typeof KitSchema>;

/** A lesson on this project: for whom, how long, to what end; and what was printed of it, so that changes can be told. */
export const LessonSchema = z.strictObject({
  level: z.enum(Object.keys(LESSON_LEVELS) as [LessonLevel, ...LessonLevel[]]),
  minutes: z.number().int().min(20).max(480),
  aims: z
    .array(z.enum(Object.keys(LESSON_AIMS) as [LessonAim, ...LessonAim[]]))
    .min(1)
    .max(7),
  made: z
    .strictObject({
      at: z.string().max(40),
      plan: z.string().max(20),
      items: z
        .record(z.string().max(120), z.string().max(600))
        .refine((o) => Object.keys(o).length <= 2000, "at most 2000 lines of a lesson"),
    })
    .optional(),
});
export type LessonWish = z.infer<typeof LessonSchema>;

const half = z.enum(["left", "right"]);
const column = z.string().regex(/^[a-j]$/, "a column, a to j");
const boardRow = z.number().int().min(1).max(63);
/** Where a part stands on a breadboard: half and row of its first pin; where its second leg goes, if it has loose ones. */
export const SpotSchema = z.strictObject({
  board: z.number().int().min(0).max(5),
  half,
  row: boardRow,
  letter: column.optional(),
  turn: z.boolean(),
  to: z.strictObject({ half, row: boardRow, letter: column.optional() }).optional(),
});
export const BreadboardSchema = z.strictObject({
  boards: z
    .array(z.enum(["170", "400", "830"]))
    .min(1)
    .max(6),
  /** Whether the rails of the large board are broken in the middle; taken as broken when absent. */
  split: z.boolean().optional(),
  at: z.record(z.string().max(20), SpotSchema),
  /** Made by the planner, and kept up by it as parts come and go; a person who moves anything takes it over. */
  by: z.literal("plan").optional(),
});

/** Who made a wire: the planner, a person, a fix of a finding. Unsaid, as in files from elsewhere: a person. */
export const MAKERS = ["plan", "hand", "fix"] as const;

export const LinkSchema = z.strictObject({
  from: endpoint,
  to: endpoint,
  locked: z.boolean().optional(),
  by: z.enum(MAKERS).optional(),
  /** This wire's own length, gauge and colour, where they are not as for the rest of its part. */
  cm: z.number().positive().max(2000).optional(),
  awg: z.number().int().min(10).max(32).optional(),
  colour: z.string().min(1).max(20).optional(),
});

/** What a remark is about. */
export const RemarkAtSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("plan") }),
  z.strictObject({ kind: z.literal("part"), ref: z.string().max(20), pin: z.string().max(20).optional() }),
  z.strictObject({ kind: z.literal("wire"), from: z.string().max(30), to: z.string().max(30) }),
  z.strictObject({ kind: z.literal("net"), name: z.string().max(60) }),
  z.strictObject({ kind: z.literal("finding"), rule: z.string().max(40), at: z.array(z.string().max(40)).max(40) }),
]);
export type RemarkAt = z.infer<typeof RemarkAtSchema>;

/** What somebody who looked a plan over has to say about a place of it, and what became of that. */
export const RemarkSchema = z.strictObject({
  id: z.string().min(1).max(40),
  at: RemarkAtSchema,
  by: z.string().trim().max(60),
  when: z.string().max(40),
  says: z.string().trim().min(1).max(1000),
  done: z
    .strictObject({ by: z.string().trim().max(60), when: z.string().max(40), says: z.string().trim().max(1000) })
    .optional(),
});
export type Remark = z.infer<typeof RemarkSchema>;
export const MOST_REMARKS = 300;

export const BENCH_LISTS = ["wires", "checks", "log"] as const;

export const BenchEntrySchema = z.strictObject({
  at: z.string().max(40),
  /** `log`: every reading that was taken, one after the other, and what was mended. */
  list: z.enum(BENCH_LISTS),
  id: z.string().max(120),
  done: z.boolean(),
  reading: z.string().max(80).optional(),
});

export const ProjectSchema = z.strictObject({
  format: z.literal("young-lattice-project"),
  version: z.literal(PROJECT_VERSION),
  title: TitleSchema,
  brief: z
    .strictObject({
      goal: z.string().max(2000).default(""),
      stage: z.enum(["prototype", "keep"]).default("prototype"),
      notes: z.string().max(10_000).default(""),
      place: PlaceSchema.default("room"),
      /** Whether a soldering iron is at hand. */
      iron: z.boolean().default(true),
    })
    .default({ goal: "", stage: "prototype", notes: "", place: "room", iron: true }),
  houseRules: HouseRulesSchema.default({}),
  fixedRules: FixedRulesSchema.optional(),
  parts: z.array(ProjectPartSchema).max(400).default([]),
  links: z.array(LinkSchema).max(2000).default([]),
  isolated: z
    .array(z.array(z.string().max(30)).max(50))
    .max(20)
    .default([]),
  buses: z
    .array(z.strictObject({ host: ref, bus: z.string().max(12), clock_Hz: z.number().min(1).max(1e9) }))
    .max(50)
    .default([]),
  customParts: z.array(PartSchema).max(100).default([]),
  drawer: DrawerSchema.default(emptyDrawer),
  /** The plan that changes are compared with: what is wired on the bench, or was printed. */
  savedPlan: z
    .strictObject({ at: z.string().max(40), name: z.string().max(60).optional(), links: z.array(LinkSchema).max(2000) })
    .optional(),
  /** Where the person put the boxes of the loom drawing: by reference, loose parts of the plan included. */
  drawing: z.strictObject({ loom: z.record(z.string().max(20), BoxPlaceSchema) }).optional(),
  /** For how many benches to lay parts out, and what to add of each kind, in per cent. */
  kit: KitSchema.optional(),
  /** A lesson on it. */
  lesson: LessonSchema.optional(),
  /** The box that the build goes into: inner size, and where on its front parts are, in millimetres from the upper left. */
  box: BoxSchema.optional(),
  /** Where parts stand on breadboards, as planned or as the person has taken it over. */
  breadboard: BreadboardSchema.optional(),
  /** What the programs do when; absent: what is suggested from the parts. */
  rules: z.array(RuleSchema).max(100).optional(),
  /** The pattern that it was begun from, which knows ways to go on. */
  pattern: z.string().max(40).optional(),
  code: z.record(z.string().max(40), z.record(z.string().max(60), z.string().max(100_000))).default({}),
  bench: z.array(BenchEntrySchema).max(5000).default([]),
  /** What others have said about it. */
  remarks: z.array(RemarkSchema).max(MOST_REMARKS).optional(),
  acknowledged: z
    .array(
      z.strictObject({
        rule: z.string().max(40),
        at: z.array(z.string().max(40)).max(40),
        reason: z.string().min(1).max(300),
      }),
    )
    .max(200)
    .default([]),
});

export type Project = z.infer<typeof ProjectSchema>;
export type BenchEntry = z.infer<typeof BenchEntrySchema>;
export type ProjectPart = z.infer<typeof ProjectPartSchema>;
export type Link = z.infer<typeof LinkSchema>;
export type CompanionKey = z.infer<typeof CompanionKeySchema>;
export type CompanionValue = z.infer<typeof CompanionValueSchema>;

/** An empty project with a title. */
export const emptyProject = (title: string): Project =>
  ProjectSchema.parse({ format: "young-lattice-project", version: PROJECT_VERSION, title });

/** The value in force for a house rule: the project's, else the default. */
export function houseRule<K extends HouseRuleKey>(project: Project, key: K): (typeof HOUSE_RULES)[K][number] {
  return (project.houseRules[key] ?? HOUSE_RULES[key][0]) as (typeof HOUSE_RULES)[K][number];
}

/** The JSON Schema of the project file, for other tools. */
export const projectJsonSchema = () => z.toJSONSchema(ProjectSchema, { io: "input", unrepresentable: "any" });
