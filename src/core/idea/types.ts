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

/** One part of a way, with the options that it is taken with. */
export interface Piece {
  part: string;
  label: string;
  options?: Readonly<Record<string, string | number>>;
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
  /** Words and patterns, the parts of a regular expression; the longest that is found counts. */
  words: readonly string[];
  /** The best way first, where nothing else decides. */
  ways: readonly Way[];
  /** The board must have it: a radio, USB of its own. */
  board?: "wifi" | "usb";
}
