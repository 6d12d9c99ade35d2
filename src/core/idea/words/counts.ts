import { NUMBER_WORDS, numberOf } from "../../quantity";

/**
 * How many the words say of something: "two motors", "3 red lamps", "a pair of servos". `nouns` is the part of a regular expression
 * that names them. 1 where no number stands there.
 */
export function countOf(text: string, nouns: string): number {
  const re = new RegExp(`\\b(\\d{1,3}|${NUMBER_WORDS})(?= (?:\\w+ ){0,2}?(?:${nouns})\\b)`, "g");
  return Math.max(1, ...[...text.matchAll(re)].map((m) => numberOf(m[1]!)));
}
