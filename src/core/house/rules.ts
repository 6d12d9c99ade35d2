import type { Drawing } from "../drawing";
import { HOUSE_RULES } from "../project/choices";
import * as pictures from "./pictures";
import type { RuleKey } from "./words";

/** One school: what it costs, what it buys, who holds it, and how it looks. */
export interface School {
  costs: string;
  buys: string;
  who: string;
  picture(): Drawing;
}
/** No rule and no choice can be missing here. */
type Rules = {
  [K in RuleKey]: { why: string; choices: Record<(typeof HOUSE_RULES)[K][number], School> };
};

/** Where careful people disagree: both schools, fairly. Adding a choice is an entry here and in the project's choices. */
export const RULES: Rules = {
  firstBuild: {
    why: "A build is changed while it is tried, and shaken when it is used: no way of joining is good at both.",
    choices: {
      breadboard: {
        costs: "contacts that work loose, some picofarads and ohms a hole, built twice when it shall last",
        buys: "a wrong wire is put right in seconds, nothing is used up, no iron in the room",
        who: "those who teach and those who try things out",
        picture: pictures.build.breadboard,
      },
      solder: {
        costs: "every mistake costs minutes with the iron, and heat that parts do not like",
        buys: "joints that stay, strong currents, one build only",
        who: "those who build the same thing for the second time",
        picture: pictures.build.solder,
      },
    },
  },
  leads: {
    why: "Wires that leave the board get in the way of hands; short ones are hard to reach once others lie over them.",
    choices: {
      last: {
        costs: "rows under the first short wires are crowded when the leads come",
        buys: "the board lies flat, and nothing is pulled out by a lead that hangs",
        who: "those with large tables",
        picture: pictures.leads.last,
      },
      first: {
        costs: "leads hang over the edge and pull while the rest is laid",
        buys: "free rows at the pins that matter",
        who: "those with many modules beside the board",
        picture: pictures.leads.first,
      },
    },
  },
  sharing: {
    why: "One pin for ground, ten wires that want it: where they meet decides what one loose wire takes along.",
    choices: {
      rails: {
        costs: "a breadboard, half an ampere at most, rails that are broken in the middle on some boards",
        buys: "each part comes off by itself; the meter finds every joint",
        who: "most who use a breadboard",
        picture: pictures.sharing.rails,
      },
      "daisy-chain": {
        costs: "all behind a bad wire stop together, and the first wire carries the current of all",
        buys: "the fewest and shortest wires, no breadboard",
        who: "those who wire along a wall or a model",
        picture: pictures.sharing.daisyChain,
      },
      splice: {
        costs: "soldering or clamps, and everything comes off to change one",
        buys: "each part has its own way to one point: strong currents, no fault passed on",
        who: "those who build into a box",
        picture: pictures.sharing.splice,
      },
    },
  },
  grounds: {
    why: "A signal is a voltage against something. Two circuits that talk need a common zero, or something between them that needs none.",
    choices: {
      joined: {
        costs: "noise and faults of motors reach the board through the shared wire",
        buys: "one wire, and every signal just works",
        who: "nearly everybody with small motors and lights",
        picture: pictures.grounds.joined,
      },
      isolated: {
        costs: "an isolator for each signal, a supply of its own on the far side",
        buys: "what goes wrong over there stays there; long cables and other buildings can be joined",
        who: "those with strong motors, long lines, or people at the other end",
        picture: pictures.grounds.isolated,
      },
    },
  },
  strips: {
    why: "A light takes up to 60 mA at full white: thirty of them are more than three times what a USB port gives.",
    choices: {
      "own-supply": {
        costs: "one adapter more, grounds to be joined, a plug that may come off alone",
        buys: "full brightness, and the board keeps running when the lights take all",
        who: "those who want light",
        picture: pictures.strips.ownSupply,
      },
      "usb-capped": {
        costs: "brightness, and a program that must never forget its cap",
        buys: "one cable for all of it",
        who: "those who want colour, on a table",
        picture: pictures.strips.usbCapped,
      },
    },
  },
  levelPolicy: {
    why: "A 3.3 V output is a high for many 5 V inputs by their data sheet, and not for others.",
    choices: {
      thresholds: {
        costs: "the data sheets must be right, and the margin is small",
        buys: "no level changers where none are needed",
        who: "those who read data sheets",
        picture: pictures.levels.thresholds,
      },
      "same-nominal": {
        costs: "a level changer in more wires, which can be wired wrongly, too",
        buys: "nobody has to ask; parts of unknown make are safe",
        who: "those who are handed parts from a drawer",
        picture: pictures.levels.sameNominal,
      },
    },
  },
  buttonPull: {
    why: "An open contact is no level at all: something has to hold the pin until somebody presses.",
    choices: {
      "internal-up": {
        costs: "pressed reads low, which beginners find odd; it is weak, so long wires pick things up",
        buys: "no part, one wire less; a wire that touches ground does no harm",
        who: "those who build much",
        picture: pictures.button.internalUp,
      },
      "external-down": {
        costs: "a resistor and a wire each, supply at the button: a slip there is a short",
        buys: "pressed is high, as one would say it",
        who: "those who teach logic first",
        picture: pictures.button.externalDown,
      },
      "external-up": {
        costs: "a resistor each",
        buys: "works on every pin, strong against noise, ground at the button",
        who: "those with long wires, or pins without a pull-up",
        picture: pictures.button.externalUp,
      },
    },
  },
  bounce: {
    why: "A contact closes several times before it is closed. Either the program waits until it is quiet, or parts make it quiet.",
    choices: {
      software: {
        costs: "some lines of program, a press counts 20 ms late",
        buys: "no parts; the wait can be changed without an iron",
        who: "those who write the program themselves",
        picture: pictures.bounce.software,
      },
      rc: {
        costs: "two parts a contact, and a slow edge that some inputs do not like",
        buys: "one clean step, for counters and for programs that nobody can change",
        who: "those who count pulses in hardware",
        picture: pictures.bounce.rc,
      },
    },
  },
  ledResistorSide: {
    why: "In a loop the current is the same everywhere: the resistor limits it on either side.",
    choices: {
      anode: {
        costs: "nothing",
        buys: "the light's short leg goes straight to the ground rail",
        who: "those who think from the pin",
        picture: pictures.led.anode,
      },
      cathode: {
        costs: "nothing",
        buys: "the pin goes straight to the light: a touch to ground at the light's far leg is limited, too",
        who: "those who draw ground at the bottom",
        picture: pictures.led.cathode,
      },
    },
  },
  programStyle: {
    why: "While a program waits it does nothing else. It is simplest to read all the same.",
    choices: {
      "non-blocking": {
        costs: "harder to read in the first lesson",
        buys: "a button is felt while a lamp blinks; more parts do not slow it down",
        who: "those who go on from it",
        picture: pictures.program.nonBlocking,
      },
      delays: {
        costs: "a press during a wait is not felt, and every part more makes it slower",
        buys: "twenty lines that a beginner follows with a finger",
        who: "those with a first lesson to give",
        picture: pictures.program.delays,
      },
    },
  },
};

/** The school of a choice. */
export const schoolOf = (key: RuleKey, value: string): School => (RULES[key].choices as Record<string, School>)[value]!;
