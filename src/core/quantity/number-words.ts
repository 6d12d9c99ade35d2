/** Counts as people write them out. */
const WORDS: ReadonlyMap<string, number> = new Map(
  Object.entries({
    ...Object.fromEntries(
      "one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen"
        .split(" ")
        .map((w, i) => [w, i + 1]),
    ),
    twenty: 20,
    "twenty four": 24,
    thirty: 30,
    forty: 40,
    "forty five": 45,
    fifty: 50,
    sixty: 60,
    "a hundred": 100,
    "a pair of": 2,
    "a couple of": 2,
    "a dozen": 12,
    both: 2,
  }),
);

/** The words for counts as a part of a regular expression, the longer first. */
export const NUMBER_WORDS = [...WORDS.keys()].sort((a, b) => b.length - a.length).join("|");

/** A count written in figures or in a word, in small letters; NaN for what is none. */
export const numberOf = (word: string): number => (/^\d+$/.test(word) ? Number(word) : (WORDS.get(word) ?? NaN));
