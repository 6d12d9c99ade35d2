import { HOUSE_RULES, type HouseRuleKey } from "@/core/project/choices";

type RuleKey = Exclude<HouseRuleKey, "wireColours"> & keyof typeof HOUSE_RULES;
/** Each question, and each choice with what it costs and what it buys. No rule and no choice can be missing here. */
type Questions = {
  [K in RuleKey]: { question: string; choices: Record<(typeof HOUSE_RULES)[K][number], string> };
};

const QUESTIONS: Questions = {
  firstBuild: {
    question: "How is it built first?",
    choices: {
      breadboard: "on a breadboard, then soldered: mistakes are mended in a minute",
      solder: "soldered at once: lasts, but a wrong joint must be undone with the iron",
    },
  },
  leads: {
    question: "Which wires come first in each group?",
    choices: {
      last: "those on the breadboard: it lies flat while most of it is laid",
      first: "those that leave it: their rows are still easy to reach",
    },
  },
  sharing: {
    question: "How do parts share ground and supply?",
    choices: {
      rails: "breadboard rails: easy to change",
      "daisy-chain": "from part to part: no breadboard, one bad wire stops the rest",
      splice: "one splice or bus strip: neat and lasting, needs soldering or clamps",
    },
  },
  grounds: {
    question: "Grounds of parts with a supply of their own?",
    choices: {
      joined: "joined: signals between them have a common zero",
      isolated: "never joined: faults and noise stay on their side, every signal between needs an isolator",
    },
  },
  strips: {
    question: "What feeds a light strip?",
    choices: {
      "own-supply": "its own supply: full brightness, one adapter more",
      "usb-capped": "USB with a brightness cap: one cable, dimmer",
    },
  },
  levelPolicy: {
    question: "When do two voltages go together?",
    choices: {
      thresholds: "when the guaranteed levels leave a margin: fewer parts",
      "same-nominal": "only when both sides run at the same voltage: stricter, more level changes",
    },
  },
  buttonPull: {
    question: "How is a button read?",
    choices: {
      "internal-up": "the chip's own pull-up, button to ground: no extra part",
      "external-down": "10 kΩ to ground, button to supply: pressed reads 1, one resistor each",
      "external-up": "10 kΩ to supply, button to ground: works on pins without a pull-up",
    },
  },
  bounce: {
    question: "A button chatters for some milliseconds. Who waits?",
    choices: {
      software: "the program: no extra part",
      rc: "a resistor and a capacitor at the contact: the program sees one clean step",
    },
  },
  ledResistorSide: {
    question: "Where does an LED's resistor go?",
    choices: {
      anode: "anode side, towards the pin",
      cathode: "cathode side, towards ground: electrically the same",
    },
  },
  programStyle: {
    question: "How is the starter program written?",
    choices: {
      "non-blocking": "tasks with their own time: nothing waits",
      delays: "one thing after another: simplest to read, for a first lesson",
    },
  },
};

export interface Question {
  key: RuleKey;
  question: string;
  /** The first is the usual one. */
  choices: { value: string; says: string }[];
}

/** The house rules in the order of their weight for a build, the usual choice first. */
export const questions: Question[] = (Object.keys(QUESTIONS) as RuleKey[]).map((key) => ({
  key,
  question: QUESTIONS[key].question,
  choices: HOUSE_RULES[key].map((value) => ({
    value,
    says: (QUESTIONS[key].choices as Record<string, string>)[value]!,
  })),
}));
