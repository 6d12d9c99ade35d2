/** What a project can choose from, as plain lists: for the schema, and for screens that need no more than the words. */

/** Where careful people disagree the project chooses; the first of each list is the default. */
export const HOUSE_RULES = {
  buttonPull: ["internal-up", "external-down", "external-up"],
  levelPolicy: ["thresholds", "same-nominal"],
  sharing: ["rails", "daisy-chain", "splice"],
  ledResistorSide: ["anode", "cathode"],
  bounce: ["software", "rc"],
  programStyle: ["non-blocking", "delays"],
  strips: ["own-supply", "usb-capped"],
  firstBuild: ["breadboard", "solder"],
  leads: ["last", "first"],
  grounds: ["joined", "isolated"],
} as const;
export type HouseRuleKey = keyof typeof HOUSE_RULES;

/** Where a build lives: in short, as an answer, and the air around it at its coldest and warmest, °C. */
export const PLACES = {
  room: { short: "in a room", says: "in a room", min_C: 10, max_C: 40 },
  shelter: {
    short: "outdoors in the shade",
    says: "outdoors in the shade, or in an unheated shed",
    min_C: -15,
    max_C: 45,
  },
  sun: { short: "in the sun", says: "in the sun: a closed box outdoors, a greenhouse, a car", min_C: -15, max_C: 65 },
} as const;
export type Place = keyof typeof PLACES;

/** Walls of a box; each is looked at from outside, the front upright before the person. */
export const WALLS = ["front", "back", "left", "right", "top", "bottom"] as const;
export type Wall = (typeof WALLS)[number];

export const SPARE_KINDS = ["loose", "wires", "modules", "boards"] as const;
export type SpareKind = (typeof SPARE_KINDS)[number];

/** Who a lesson is for. */
export const LESSON_LEVELS = {
  "7-11": { name: "7 to 11", says: "short sentences, holes and colours, one number at a time" },
  "11-14": { name: "11 to 14", says: "nets by name, sums with the formula given" },
  "14+": { name: "14 and up", says: "the plan as it is, sums with their working" },
} as const;
export type LessonLevel = keyof typeof LESSON_LEVELS;

/** What a lesson is to teach. */
export const LESSON_AIMS = {
  circuit: { name: "a circuit", says: "current leaves, goes through, and comes back" },
  "series-parallel": { name: "series and parallel", says: "what one after the other and side by side do to current" },
  levels: { name: "levels", says: "which voltage counts as high and as low" },
  bus: { name: "a bus", says: "several parts on the same lines" },
  debouncing: { name: "debouncing", says: "a contact closes more than once" },
  meter: { name: "reading a meter", says: "beeps, volts and ohms, predicted before they are measured" },
  "fault-finding": { name: "finding faults", says: "from what is seen to the one measurement that tells most" },
} as const;
export type LessonAim = keyof typeof LESSON_AIMS;

/** The lesson of a project that names none. */
export const LESSON_DEFAULT: { level: LessonLevel; minutes: number; aims: LessonAim[] } = {
  level: "11-14",
  minutes: 90,
  aims: ["circuit", "meter", "fault-finding"],
};
