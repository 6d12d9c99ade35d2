const NUMBERS = [
  "zero",
  "one",
  "two",
  "three",
  "four",
  "five",
  "six",
  "seven",
  "eight",
  "nine",
  "ten",
  "eleven",
  "twelve",
  "thirteen",
  "fourteen",
  "fifteen",
  "sixteen",
];

/** Greater ones by their words. */
const ROUND: Readonly<Record<string, number>> = {
  twenty: 20,
  "twenty four": 24,
  thirty: 30,
  forty: 40,
  fifty: 50,
  sixty: 60,
  "a hundred": 100,
  "a pair of": 2,
  "a couple of": 2,
  both: 2,
};
const WORDS = [...Object.keys(ROUND), ...NUMBERS].sort((a, b) => b.length - a.length);

const number = (w: string): number => (/^\d+$/.test(w) ? Number(w) : (ROUND[w] ?? NUMBERS.indexOf(w)));

/**
 * How many the words say of something: "two motors", "3 red lamps", "a pair of servos". `nouns` is the part of a regular expression
 * that names them. 1 where no number stands there.
 */
export function countOf(text: string, nouns: string): number {
  const re = new RegExp(`\\b(\\d{1,3}|${WORDS.join("|")})(?= (?:\\w+ ){0,2}?(?:${nouns})\\b)`, "g");
  const all = [...text.matchAll(re)].map((m) => number(m[1]!));
  return Math.max(1, ...all);
}
