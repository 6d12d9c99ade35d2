/** What a person wants something to do, as the Brief asks for it. */
export const VERBS = {
  sense: { name: "sense", asks: "What should it feel or measure?" },
  count: { name: "count", asks: "What should it count?" },
  show: { name: "show", asks: "What should it show, and how?" },
  light: { name: "light", asks: "What should it light?" },
  sound: { name: "sound", asks: "What should be heard?" },
  move: { name: "move", asks: "What should it move?" },
  switch: { name: "switch", asks: "What should it switch?" },
  log: { name: "log", asks: "What should it remember?" },
  send: { name: "send", asks: "Whom should it tell, and over what?" },
} as const;
export type Verb = keyof typeof VERBS;

/** No thing is taken more often than this. */
export const MOST_OF_ONE = 16;

/** One part of a way, with the options that it is taken with. */
export interface Piece {
  part: string;
  label: string;
  options?: Readonly<Record<string, string | number>>;
  /** One of it for so many of what is wished: a driver of two motors. Else one each. */
  per?: number;
  /** However many are wished, this is one with so many in it: the option that says how many. */
  holds?: { option: string; most: number };
}

/** One way to do a thing: what it takes, and what decides for or against it. */
export interface Way {
  id: string;
  pieces: readonly Piece[];
  /** 1 cheap, 2 in between, 3 dear. */
  price: 1 | 2 | 3;
  /** Where it stands weather; `in`: only indoors. */
  where: "in" | "out" | "both";
  /** What is good about it, and what is not, in a few words each. */
  good: string;
  but?: string;
  /** How exact it is, from 1 (a hint) to 3 (a measurement). */
  exact?: 1 | 2 | 3;
}

/** Something that a person may want, under one verb, with the words by which people say it. */
export interface Thing {
  id: string;
  verb: Verb;
  name: string;
  /** Words and patterns, the parts of a regular expression; `{class}` and ` ~ ` as in words/forms. */
  words: readonly string[];
  /** Several of them may be wished: what they are called then, a part of a regular expression. */
  many?: string;
  /** So many are meant where no number stands; else one. */
  usual?: number;
  /** The best way first, where nothing else decides. */
  ways: readonly Way[];
  /** The board must have it: a radio, USB of its own. */
  board?: "wifi" | "usb";
}
