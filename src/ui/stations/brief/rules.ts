import { RULE_KEYS, RULES, schoolsOf, type RuleKey, type School } from "@/core/house/rules";

export interface Question {
  key: RuleKey;
  question: string;
  why: string;
  /** The first is the usual one. */
  choices: { value: string; says: string; school: School }[];
}

/** The house rules in the order of their weight for a build, the usual choice first. */
export const questions: Question[] = RULE_KEYS.map((key) => ({
  key,
  question: RULES[key].question,
  why: RULES[key].why,
  choices: schoolsOf(key).map(({ value, school }) => ({ value, says: school.says, school })),
}));
