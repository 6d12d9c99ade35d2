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
