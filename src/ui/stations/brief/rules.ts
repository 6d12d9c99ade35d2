import { choicesOf, RULE_KEYS, WORDS, type RuleKey } from "@/core/house/words";

export interface Question {
  key: RuleKey;
  question: string;
  /** The first is the usual one. */
  choices: { value: string; says: string }[];
}

/** The house rules in the order of their weight for a build, the usual choice first. */
export const questions: Question[] = RULE_KEYS.map((key) => ({
  key,
  question: WORDS[key].question,
  choices: choicesOf(key),
}));
