/** The rules, one file a family or one a rule, the registry that runs them, and what explains and tries what they say. */
export { findings } from "./registry";
export { RULES } from "./rules";
export * from "./types";
export { brightnessCap } from "./power";
export { backfeeds, type Backfeed } from "./rules/level-backfeed";
export { bootStates, type BootState } from "./boot";
export { verdict, type Verdict } from "./verdict";
export { findingKey, holdsUp, triedFindings } from "./tried";
export { explain, groundsOf, type Ground } from "./explain";
export { evidenceSentences } from "./evidence";
export { shareOf, shareWords } from "./share";
