import { HOUSE_RULES } from "../project/choices";

export type RuleKey = keyof typeof HOUSE_RULES;
/** No rule and no choice can be missing here. */
type Words = {
  [K in RuleKey]: { question: string; choices: Record<(typeof HOUSE_RULES)[K][number], string> };
};

/** What is asked, and each choice in a line: for screens that need no more than the words. */
export const WORDS: Words = {
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

export const RULE_KEYS = Object.keys(WORDS) as RuleKey[];
/** The choices of a rule in words, the usual one first. */
export const choicesOf = (key: RuleKey): { value: string; says: string }[] =>
  HOUSE_RULES[key].map((value) => ({ value, says: (WORDS[key].choices as Record<string, string>)[value]! }));
