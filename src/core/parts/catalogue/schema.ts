import { z } from "zod";
import { expressionProblem } from "../../quantity";
import { CHEMISTRIES } from "./cells";
import { CertaintySchema, StandingSchema } from "./certainty";
import { PrintSchema } from "./print-schema";
import { PRINTED_LABEL } from "./printed-label";

/**
 * The shape of a part: board, bare chip, module, loose part, supply or connector. One schema for all of them, because
 * a board is a part whose pins offer, an expander both needs and offers, and a supply is a part with a source.
 * Units stand in the key; values may be expressions in `V`, `I` (amperes) and the part's option keys.
 */
const text = (max: number) => z.string().min(1).max(max);
/** Printable, on one line, without what ends a text in a program. */
const oneLine = (max: number) =>
  z
    .string()
    .max(max)
    .regex(/^[ -~]*$/, "printable characters on one line");
/** Names by which things are looked up: none of them may be what every object has. */
const key = z
  .string()
  .regex(/^[A-Za-z][A-Za-z0-9_]{0,39}$/, "a short name of letters, digits and _")
  .refine((t) => !(t in {}), "another name: this one has a meaning of its own in programs");
/** What becomes a word of a program or names a controller: letters, digits and _ only, so that no text can become code. */
const word = z.string().regex(/^[A-Za-z0-9_]{1,20}$/, "letters, digits and _ only, up to 20: it stands in programs");
const unit = z.string().regex(/^[A-Za-z0-9_.-]{1,12}$/, "letters, digits and _ . - only, up to 12");
const pinLabel = z.string().regex(PRINTED_LABEL, "a pin label as printed, up to 20 letters, digits and + - _ . ' /");

export const ExprSchema = z.union([
  z.number(),
  z
    .string()
    .max(200)
    .superRefine((t, ctx) => {
      const problem = expressionProblem(t);
      if (problem) ctx.addIssue({ code: "custom", message: problem });
    }),
]);
export const SpreadSchema = z.strictObject({ min: ExprSchema, typ: ExprSchema, max: ExprSchema });

const byteText = z.string().regex(/^0x[0-9a-f]{1,8}$/i, "a number like 0x1f");

const PinCap = z.enum(["pwm", "adc", "interrupt", "pull-up", "pull-down", "dac", "touch", "5v-tolerant"]);
export const NeedSchema = z.strictObject({
  kind: z.enum([
    "digital-out",
    "digital-in",
    "digital-io",
    "pwm",
    "adc",
    "dac",
    "interrupt",
    "i2c",
    "spi",
    "uart",
    "can",
    "bridge",
    "i2s",
    "program",
  ]),
  role: z.string().max(12).optional(),
  /** What the pulses are for: their timer then runs at a servo's rate, or at whatever note is played. */
  use: z.enum(["servo", "tone"]).optional(),
  /** Changes, or is read, seldom enough to sit behind an expander, a shift register or a multiplexer. */
  slow: z.boolean().optional(),
  require: z.array(PinCap).optional(),
  prefer: z.array(PinCap).optional(),
  optional: z.boolean().optional(),
});

/** `set`: pins of a controller that go together; it can't take one line from one set and another from the next. */
export const OfferSchema = z.discriminatedUnion("kind", [
  z.strictObject({
    kind: z.literal("digital"),
    in: z.boolean().default(true),
    out: z.boolean().default(true),
    pull: z.array(z.enum(["up", "down"])).default([]),
  }),
  z.strictObject({ kind: z.literal("pwm"), timer: unit, channel: unit }),
  z.strictObject({ kind: z.literal("adc"), unit: unit.default("adc"), channel: z.number().int() }),
  z.strictObject({
    kind: z.literal("dac"),
    channel: z.number().int(),
    /** What the output reaches, as shares of its supply; from nothing to all of it when absent. */
    span: z.strictObject({ low: z.number().min(0).max(1), high: z.number().min(0).max(1) }).optional(),
  }),
  z.strictObject({ kind: z.literal("interrupt"), line: unit, edge: z.boolean().default(true) }),
  z.strictObject({
    kind: z.literal("i2c"),
    bus: word,
    role: z.enum(["sda", "scl"]),
    usual: z.boolean().optional(),
    set: unit.optional(),
  }),
  z.strictObject({
    kind: z.literal("spi"),
    bus: word,
    role: z.enum(["sck", "mosi", "miso", "cs"]),
    usual: z.boolean().optional(),
    set: unit.optional(),
  }),
  z.strictObject({
    kind: z.literal("uart"),
    bus: word,
    role: z.enum(["tx", "rx", "cts", "rts"]),
    usual: z.boolean().optional(),
    set: unit.optional(),
  }),
  z.strictObject({
    kind: z.literal("can"),
    bus: word,
    role: z.enum(["tx", "rx"]),
    usual: z.boolean().optional(),
    set: unit.optional(),
  }),
  /** Sound as numbers: bit clock, word select (left or right), data into the board and out of it. */
  z.strictObject({
    kind: z.literal("i2s"),
    bus: word,
    role: z.enum(["sck", "ws", "sdi", "sdo"]),
    usual: z.boolean().optional(),
    set: unit.optional(),
  }),
  /** Where the four wires of a strain gauge bridge go: feed plus and minus, signal plus and minus. */
  z.strictObject({
    kind: z.literal("bridge"),
    bus: word,
    role: z.enum(["e+", "e-", "s+", "s-"]),
    usual: z.boolean().optional(),
    set: unit.optional(),
  }),
  z.strictObject({ kind: z.literal("touch"), channel: z.number().int() }),
  z.strictObject({ kind: z.literal("program"), role: z.string().max(12) }),
]);

/** `want`: the level that a strapping pin must see while the chip starts; `lit`: the level that lights the board's own light. */
export const HazardSchema = z.strictObject({
  want: z.enum(["high", "low"]).optional(),
  lit: z.enum(["high", "low"]).optional(),
  kind: z.enum([
    "reserved",
    "strapping",
    "console",
    "onboard",
    "reset",
    "bootlog",
    "programming",
    "input-only",
    "adc-radio",
    // Not in a header: a wire is soldered to it.
    "pad",
  ]),
  says: text(200),
});

export const PinSchema = z.strictObject({
  label: pinLabel,
  aliases: z.array(pinLabel).optional(),
  /** What a person calls this pin of a plug: told beside its number wherever the pin is named. */
  called: pinLabel.optional(),
  says: text(200).optional(),
  role: z.enum(["supply-in", "supply-out", "supply-io", "ground", "signal", "passive", "cable", "reference", "nc"]),
  supply: key.optional(),
  domain: key.optional(),
  io: z.enum(["in", "out", "bidir", "open-drain", "analog-in", "analog-out"]).optional(),
  level: key.optional(),
  need: NeedSchema.optional(),
  hook: z
    .enum([
      "ground",
      "logic-supply",
      "button-return",
      "own-supply",
      // Another pin of the same part, named by `hookPin`.
      "own-pin",
      // A programmer's lines, each to the chip's pin of that use.
      "isp-mosi",
      "isp-miso",
      "isp-sck",
      "isp-reset",
    ])
    .optional(),
  hookPin: pinLabel.optional(),
  mustNotFloat: z.boolean().optional(),
  /** The part itself holds an open input there, whatever the board does. */
  restsAt: z.enum(["high", "low"]).optional(),
  /** What an output of a part gives from power-on until its first write; absent: it is an open input until then. */
  atPowerOn: z.enum(["low", "high", "any"]).optional(),
  /** A supply or ground pin that may stay free: a backup cell, a second socket, a load supply that is not always there. */
  optional: z.boolean().optional(),
  /** What a terminal without a level of its own may stand at against the part's ground, volts: a meter's shunt, a bus pair. */
  bears_V: z.strictObject({ min: z.number(), max: z.number() }).optional(),
  /** Its line of a pair that carries one signal on two wires: A and B of RS-485 and RS-422, H and L of CAN. */
  line: z.enum(["A", "B", "H", "L"]).optional(),
  gpio: z.number().int().optional(),
  names: z.record(z.string().max(20), word).optional(),
  at: z.strictObject({ header: text(8), index: z.number().int().min(1) }).optional(),
  /** What this pin's contact is, where it differs from the part's header: the screws of a relay board. */
  contact: z.enum(["male", "female", "pads", "wires", "screw", "plug"]).optional(),
  offers: z.array(OfferSchema).optional(),
  hazards: z.array(HazardSchema).optional(),
});

export const LevelSchema = z.strictObject({
  supply: key,
  VIH: ExprSchema.optional(),
  VIL: ExprSchema.optional(),
  VOH: ExprSchema.optional(),
  VOL: ExprSchema.optional(),
  /**
   * Points that the data sheet names: at this supply and this current at least so much when high, at most so much when low.
   * Without `VOH` and `VOL` the lines through them hold; beside them, the expressions may promise no more.
   */
  points: z
    .array(
      z.strictObject({
        V: z.number().positive(),
        mA: z.number().positive(),
        VOH: z.number().optional(),
        VOL: z.number().min(0).optional(),
      }),
    )
    .min(1)
    .max(12)
    .optional(),
  outTyp_ohm: ExprSchema.optional(),
  /** The highest voltage that an output can reach, when that is less than its supply. */
  outMax: ExprSchema.optional(),
  absMax: ExprSchema,
  /** The most a pin stands while its part is off, where that is less: a tolerant pin is tolerant only while powered. */
  absMax_off: z.number().optional(),
  absMin: ExprSchema.default(-0.3),
  input: z.enum(["cmos", "ttl", "schmitt", "analog", "none"]),
  output: z.enum(["push-pull", "open-drain", "analog", "none"]),
  /** What a pin gives with its levels kept, and what destroys it; a drive strength is no absolute maximum. */
  pin_mA: z.strictObject({ recommended: z.number(), absMax: z.number().optional() }).optional(),
  pullUp_ohm: SpreadSchema.optional(),
  pullDown_ohm: SpreadSchema.optional(),
  C_pF: z.number().optional(),
  leak_uA: z.number().optional(),
  /** Current into the pin that the part stands while its own supply is off; 20 when absent. */
  injection_mA: z.number().optional(),
});

/** A power node inside a part: what it accepts, what it draws, and, for a source, what it gives. */
export const SupplySchema = z.strictObject({
  label: text(30),
  domain: key.default("gnd"),
  V: SpreadSchema,
  absMax_V: z.number().optional(),
  /** It switches itself off, for good or until somebody presses, when less than this is drawn for a while. */
  keeps_mA: ExprSchema.optional(),
  /** What hangs on it draws far more than the part itself: motors, servos, coils. It wants a supply of its own. */
  forLoads: z.boolean().optional(),
  /** `asleep`: the whole board while its program sleeps; absent where no program of ours lets it. */
  mA: z.strictObject({ idle: ExprSchema, typ: ExprSchema, peak: ExprSchema, asleep: ExprSchema.optional() }).optional(),
  source: z
    .strictObject({
      V: SpreadSchema,
      limit_mA: ExprSchema,
      rint_ohm: ExprSchema.optional(),
      capacity_mAh: ExprSchema.optional(),
      plug: z.string().max(60).optional(),
      /** What a battery is made of: its discharge curve follows from it. */
      chemistry: z.enum(CHEMISTRIES).optional(),
      cells: z.number().int().min(1).max(12).optional(),
      /** The most that its cells may be charged with; absent: they must never be charged. */
      charge_mA: ExprSchema.optional(),
      /** It gives only while the sun shines on it; the figures are those of full sun. */
      sun: z.boolean().optional(),
    })
    .optional(),
});

export const ConverterSchema = z.strictObject({
  from: key,
  to: key,
  kind: z.enum(["wire", "diode", "fuse", "linear", "switching"]),
  V: SpreadSchema.optional(),
  drop_V: SpreadSchema.optional(),
  dropout_V: z.number().optional(),
  /** A step-up converter whose input shines through: its output is never lower than that. */
  passes: z.boolean().optional(),
  limit_mA: z.number(),
  efficiency: z.number().min(0.3).max(1).optional(),
  theta_C_per_W: z.number().optional(),
  says: text(160),
});

export const ElementSchema = z.discriminatedUnion("kind", [
  z.strictObject({
    kind: z.literal("resistor"),
    a: z.string(),
    b: z.string(),
    ohm: ExprSchema,
    tolerance: ExprSchema.default(0.05),
    /** Smallest and largest value that it takes in use, ohms: a light or heat sensor between its extremes. */
    span: z.strictObject({ min: ExprSchema, max: ExprSchema }).optional(),
    /** One side of a track with a wiper: together with its other side it stays the same, the wiper divides it. */
    track: z.enum(["low", "high"]).optional(),
  }),
  z.strictObject({
    kind: z.literal("capacitor"),
    a: z.string(),
    b: z.string(),
    F: ExprSchema,
    polar: z.boolean().default(false),
    /** The voltage that is printed on it. */
    max_V: ExprSchema.optional(),
  }),
  z.strictObject({ kind: z.literal("led"), a: z.string(), b: z.string(), Vf: SpreadSchema, max_mA: ExprSchema }),
  z.strictObject({ kind: z.literal("diode"), a: z.string(), b: z.string(), Vf: SpreadSchema, max_mA: ExprSchema }),
  z.strictObject({
    kind: z.literal("contact"),
    a: z.string(),
    b: z.string(),
    closed: z.enum(["pressed", "rest"]).default("pressed"),
    /** What the contact may switch; absent for small signals. */
    max_V: z.number().optional(),
    max_mA: z.number().optional(),
  }),
  /** Something that draws current between two pins: a motor, a coil, a lamp. */
  z.strictObject({
    kind: z.literal("load"),
    a: z.string(),
    b: z.string(),
    V: SpreadSchema,
    mA: z.strictObject({ idle: ExprSchema, typ: ExprSchema, peak: ExprSchema }),
    inductive: z.boolean().default(false),
  }),
  /** Bipolar transistor: base-emitter volts, smallest gain, collector limits. */
  z.strictObject({
    kind: z.literal("bjt"),
    type: z.enum(["npn", "pnp"]),
    b: z.string(),
    c: z.string(),
    e: z.string(),
    Vbe: SpreadSchema,
    VCEsat_V: z.number(),
    hFE_min: z.number(),
    /** Collector over base current at which the data sheet calls it saturated, where that is not 10: a pair in one case. */
    saturated: z.number().positive().optional(),
    /** Gain and base voltage at the collector currents that the data sheet names, smallest first. */
    at: z
      .array(z.strictObject({ Ic_mA: z.number().positive(), hFE_min: z.number(), Vbe_max: z.number() }))
      .min(1)
      .max(12)
      .optional(),
    Ic_mA: z.number(),
    Vceo: z.number(),
    Ptot_mW: z.number(),
  }),
  /** MOSFET: on-resistance at the gate drives that the data sheet names, worst case, smallest gate drive first. */
  z.strictObject({
    kind: z.literal("fet"),
    type: z.enum(["n", "p"]),
    g: z.string(),
    d: z.string(),
    s: z.string(),
    Vth: SpreadSchema,
    on: z.array(z.strictObject({ Vgs: z.number(), ohm: z.number() })).min(1),
    Id_mA: z.number(),
    Vds: z.number(),
    Vgs_max: z.number(),
    /** Heat that the case gets rid of by itself, on small pads and without a heat sink; 1000 when absent. */
    Ptot_mW: z.number().optional(),
    Qg_nC: z.number().optional(),
  }),
]);

export const GroupSchema = z.strictObject({
  id: key,
  kind: z.enum(["i2c", "spi", "uart", "can", "bridge", "i2s", "parallel", "chain", "encoder", "matrix", "onewire"]),
  pins: z.record(z.string().max(12), pinLabel),
  address: z
    .string()
    .regex(/^0x[0-7][0-9a-f]$/i)
    .optional(),
  max_Hz: z.number().optional(),
  /** Where the fastest clock follows the supply: at these voltages of it, lowest first. */
  max_Hz_at: z
    .array(z.strictObject({ V: z.number().positive(), Hz: z.number().positive() }))
    .min(2)
    .max(8)
    .optional(),
  mode: z.number().int().min(0).max(3).optional(),
  /** Further addresses that the part answers to, such as a memory on the same module. */
  also: z
    .array(z.string().regex(/^0x[0-7][0-9a-f]$/i))
    .max(8)
    .optional(),
  /** The part keeps driving the data line when it is not selected. */
  holdsData: z.boolean().optional(),
  says: text(200).optional(),
});

export const CompanionRuleSchema = z.strictObject({
  key: z.enum([
    "seriesResistor",
    "pullUp",
    "pullDown",
    "decoupling",
    "bulkCapacitor",
    "driver",
    "flyback",
    "divider",
    "shifter",
    "filter",
    "termination",
  ]),
  place: z.enum(["series", "across", "pull"]),
  pin: pinLabel,
  to: pinLabel.optional(),
  /** Further pins that each get the same companion. */
  also: z.array(pinLabel).optional(),
  part: z.string(),
  compute: z.enum(["fixed", "pin-limit", "led-series", "button-pull", "internal-pull"]).default("fixed"),
  ohm: ExprSchema.optional(),
  F: ExprSchema.optional(),
  needed: z.enum(["required", "recommended"]),
  because: text(240),
});

const PatchSchema = z.strictObject({
  op: z.enum(["replace", "add", "remove"]),
  path: z.string().max(120),
  value: z.unknown().optional(),
});
export const OptionSchema = z.discriminatedUnion("kind", [
  z.strictObject({
    kind: z.literal("choice"),
    key,
    label: text(40),
    default: text(40),
    choices: z
      .array(z.strictObject({ value: text(40), label: text(80), patch: z.array(PatchSchema).default([]) }))
      .min(1),
  }),
  /** Names and roles of a connector's pins, given by the person: see `connectorPins`. */
  z.strictObject({ kind: z.literal("pins"), key, label: text(40) }),
  z.strictObject({
    kind: z.literal("number"),
    key,
    label: text(40),
    unit: z.string().max(8).default(""),
    default: z.number(),
    min: z.number(),
    max: z.number(),
    step: z.number().default(1),
  }),
]);

export const BoardInfoSchema = z.strictObject({
  chip: text(40),
  family: z.enum([
    "avr",
    "rp2040",
    "rp2350",
    "esp32",
    "esp8266",
    "stm32",
    "samd",
    "nrf52",
    "imxrt",
    "kl26",
    "sam3x",
    "linux",
  ]),
  clock_Hz: z.number(),
  flash_kB: z.number(),
  ram_kB: z.number(),
  /** What of the flash an upload can use: a boot loader, a radio's own program and a file system have the rest. All of it when absent. */
  upload_kB: z.number().positive().optional(),
  logicSupply: key,
  usb: z.strictObject({ kind: z.enum(["native", "bridge", "none"]), connector: z.string().max(20), says: text(200) }),
  radio: z.array(z.string()).default([]),
  headers: z
    .array(
      z.strictObject({
        id: text(8),
        side: z.enum(["left", "right", "top", "bottom"]),
        count: z.number().int(),
        says: text(80),
        /** Position 1 from that of the first header, across and away from the USB end: where rows do not stand side by side. */
        at_mm: z.tuple([z.number(), z.number()]).optional(),
        /** Wider steps along the row: behind which position, and how wide. */
        gaps: z.array(z.strictObject({ after: z.number().int().min(1), mm: z.number().positive() })).optional(),
      }),
    )
    .min(1),
  rowPitch_mm: z.number().optional(),
  /** The end at which every header's position 1 is, in words; the USB end when absent. */
  countedFrom: text(40).optional(),
  headersSoldered: z.boolean(),
  chip_mA: z.number(),
  /** Pins whose currents add up against a limit of their own; what they deliver and what they sink counts apart. */
  portGroups: z
    .array(
      z.strictObject({ says: text(80), pins: z.array(pinLabel).min(1), source_mA: z.number(), sink_mA: z.number() }),
    )
    .optional(),
  /** How every pin is pulled inside from reset until the program says otherwise; open when absent. */
  resetPull: z.enum(["up", "down"]).optional(),
  /** How far the chip's clock may be off, as a share; a crystal's when absent. */
  clockTolerance: z.number().min(0).max(0.2).optional(),
  /** Timers that differ from the plain kind (one frequency for all their channels), by the name that the pins give. */
  timers: z
    .record(
      unit,
      z.strictObject({
        /** How many frequencies at once; 1 when absent. */
        frequencies: z.number().int().min(1).optional(),
        /** How many outputs at once, whatever pins they are on. */
        outputs: z.number().int().min(1).optional(),
        /** Its frequency can't be changed: something else, such as the clock of the program, hangs on it. */
        fixed: text(120).optional(),
        /** Uses that the core runs from this timer on any output pin. */
        drives: z.array(z.enum(["servo", "tone"])).optional(),
      }),
    )
    .optional(),
  /** The analogue converter: steps, the voltage that reads full, the largest source resistance it likes. */
  analog: z.strictObject({ bits: z.number().int(), full_V: SpreadSchema, source_ohm: z.number() }).optional(),
  /** A bare chip's pins for its programmer, and the signature that it answers with, in hexadecimal. */
  programming: z
    .strictObject({
      mosi: pinLabel,
      miso: pinLabel,
      sck: pinLabel,
      reset: pinLabel,
      signature: z.string().regex(/^[0-9A-F]{6}$/),
    })
    .optional(),
  targets: z.record(z.string().max(20), z.record(z.string().max(40), oneLine(120))),
  upload: z.array(text(300)),
  price: z.enum(["low", "medium", "high"]),
});

export const BodySchema = z.strictObject({
  mm: z.tuple([z.number(), z.number()]),
  header: z
    .strictObject({
      pins: z.number().int(),
      /** Pins in two rows, or at two ends; one row when absent. */
      rows: z.literal(2).optional(),
      /** Of two rows along the sides: how far they are apart, and from which end the second one is counted in `pins`. */
      rowPitch_mm: z.number().positive().optional(),
      secondRow: z.enum(["down", "up"]).optional(),
      kind: z.enum(["male", "female", "pads", "leads", "wires", "screw", "plug"]),
      pitch_mm: z.number(),
    })
    .optional(),
  /** What the part needs in the front of a box, seen from outside, from its own middle: holes, room around, depth behind. */
  panel: z
    .strictObject({
      holes: z
        .array(
          z.union([
            z.strictObject({ x: z.number(), y: z.number(), d_mm: z.number().positive() }),
            z.strictObject({ x: z.number(), y: z.number(), w_mm: z.number().positive(), h_mm: z.number().positive() }),
          ]),
        )
        .min(1)
        .max(8),
      room_mm: z.tuple([z.number(), z.number()]),
      depth_mm: z.number(),
      says: text(160),
    })
    .optional(),
  /** How the header reads on the boards that are sold, the commonest first. */
  prints: z.array(PrintSchema).min(1).max(8).optional(),
  solder: z.enum(["none", "headers", "leads", "wires"]).default("none"),
  orientation: text(200).optional(),
});

export const PartSchema = z.strictObject({
  id: z.string().regex(/^(board|chip|module|discrete|supply|connector)\/[a-z0-9-]{1,40}$/, "an id like module/bme280"),
  name: text(80),
  does: text(200),
  tags: z.array(z.string().max(30)).default([]),
  sources: z.array(z.strictObject({ title: text(120), where: text(160) })).min(1),
  certainty: CertaintySchema,
  /**
   * How sure single values are, and where they are from, by their path in this file (`levels/main/VIH`, or `levels/main` for
   * all in it): what differs from `certainty` of the part. `assumed`: a rule of thumb, never looked up.
   */
  values: z
    .record(
      z.string().regex(/^[A-Za-z0-9_/-]{1,80}$/, "a path in this file, like levels/main/VIH"),
      z.strictObject({
        certainty: StandingSchema,
        source: z
          .strictObject({ title: text(120), revision: text(40).optional(), where: text(160).optional() })
          .optional(),
        says: text(200).optional(),
      }),
    )
    .optional(),
  notes: z.array(text(300)).default([]),
  cautions: z.array(text(300)).default([]),
  /** The air that the part works in, °C, by its data sheet; unsaid where it stands more than any build meets. */
  air_C: z.strictObject({ min: z.number().min(-100), max: z.number().max(300) }).optional(),
  /** What a sensor tells: quantity, span, accuracy, smallest step, in words with units. */
  measures: z
    .array(
      z.strictObject({
        what: text(40),
        range: text(60),
        accuracy: text(60).optional(),
        resolution: text(40).optional(),
      }),
    )
    .default([]),
  options: z.array(OptionSchema).default([]),
  pins: z.array(PinSchema).min(1).max(150),
  supplies: z.record(key, SupplySchema).default({}),
  converters: z.array(ConverterSchema).default([]),
  levels: z.record(key, LevelSchema).default({}),
  elements: z.array(ElementSchema).default([]),
  groups: z.array(GroupSchema).default([]),
  /** Signal paths through the part, input to output: buffers and shifters that can stand in a wire. */
  channels: z
    .array(
      z.strictObject({
        in: pinLabel,
        out: pinLabel,
        /** True when signals pass in both directions, as in an open-drain shifter or an analogue switch. */
        both: z.boolean().optional(),
        /** The input that opens this path when it is low; while it is high, the output lets go. */
        enable: pinLabel.optional(),
        /** What a closed switch still puts in the way, ohms, at most: an expression in its supply `V`. */
        ohm: ExprSchema.optional(),
      }),
    )
    .default([]),
  /** Inputs that let the part, or some of its pins, work at one level only: enables, sleep, resets, direction. */
  gates: z
    .array(
      z.strictObject({
        pin: pinLabel,
        open: z.enum(["low", "high"]),
        /** The pins that are dead at the other level; all of the part when absent. */
        opens: z.array(pinLabel).min(1).max(40).optional(),
        /** What the part does at that level, and at no other, as a verb: "sends", "answers on I2C". */
        says: text(80),
        /** At the other level it still works somehow: a line driver that never lets go of its pair. */
        mild: z.boolean().optional(),
      }),
    )
    .max(24)
    .default([]),
  companions: z.array(CompanionRuleSchema).default([]),
  bringup: z
    .strictObject({
      driver: text(40),
      identity: z.strictObject({ register: byteText, want: byteText }).optional(),
    })
    .optional(),
  board: BoardInfoSchema.optional(),
  /** Parts made of many alike ones on common lines: which pair of lines is which key or light. */
  addresses: z
    .array(z.strictObject({ name: text(60), a: pinLabel, b: pinLabel }))
    .max(256)
    .optional(),
  /** What such a part is made of, for the parts list. */
  contains: z
    .array(z.strictObject({ part: z.string().max(60), count: z.number().int().min(1).max(999) }))
    .max(8)
    .optional(),
  /** What a chip that is no board passes through all its pins, and through those of a group, at most. */
  chipLimits: z
    .strictObject({
      source_mA: z.number(),
      sink_mA: z.number(),
      groups: z
        .array(
          z.strictObject({
            says: text(80),
            pins: z.array(pinLabel).min(1),
            source_mA: z.number(),
            sink_mA: z.number(),
          }),
        )
        .default([]),
      source: text(160),
    })
    .optional(),
  /** A bridge of strain gauges, or what amplifies one: how much it gives for each volt of its feed, and how much it takes. */
  bridge: z
    .discriminatedUnion("is", [
      z.strictObject({
        is: z.literal("sensor"),
        mV_per_V: ExprSchema,
        /** What it carries when it gives that much. */
        full: ExprSchema,
        unit: text(8),
      }),
      z.strictObject({ is: z.literal("amplifier"), full_mV_per_V: z.number().positive() }),
    ])
    .optional(),
  /** What fills a cell: from which supply, which one is the cell, with how much, up to which voltage, and where it stops. */
  charger: z
    .strictObject({
      from: key,
      cell: key,
      mA: ExprSchema,
      full_V: z.number().positive(),
      stops_mA: ExprSchema,
      /** While it charges, what the project draws comes from the input by a way of its own. */
      shares: z.boolean().optional(),
    })
    .optional(),
  /** What keeps two grounds apart: the voltage that it is tested with for a minute, and how fast a line across it may be. */
  isolation: z.strictObject({ test_V: z.number().positive(), most_bit_s: z.number().positive() }).optional(),
  body: BodySchema,
  /** A family of connectors: the one pin given is repeated, and `connector/header-n` stands for header-1 to header-40. */
  repeat: z.strictObject({ most: z.number().int().max(64), listed: z.array(z.number().int()) }).optional(),
});

/** The terminals of an element: pins, `supply:NAME` or `ground:NAME`. */
export const elementEnds = (e: Element): string[] =>
  e.kind === "bjt" ? [e.b, e.c, e.e] : e.kind === "fet" ? [e.g, e.d, e.s] : [e.a, e.b];

/** The JSON Schema of a part file (`*.part.json`), for other tools. */
export const partJsonSchema = () => z.toJSONSchema(PartSchema, { io: "input", unrepresentable: "any" });

export type Part = z.infer<typeof PartSchema>;
export type PartInput = z.input<typeof PartSchema>;
export type Pin = z.infer<typeof PinSchema>;
export type Offer = z.infer<typeof OfferSchema>;
export type Need = z.infer<typeof NeedSchema>;
export type Level = z.infer<typeof LevelSchema>;
export type Supply = z.infer<typeof SupplySchema>;
export type Converter = z.infer<typeof ConverterSchema>;
export type Element = z.infer<typeof ElementSchema>;
export type Group = z.infer<typeof GroupSchema>;
export type CompanionRule = z.infer<typeof CompanionRuleSchema>;
export type PartOption = z.infer<typeof OptionSchema>;
export type BoardInfo = z.infer<typeof BoardInfoSchema>;
export type PartKind = "board" | "chip" | "module" | "discrete" | "supply" | "connector";
