/** What to do at the bench, in order: before power, at first power, with the bring-up program. */
export { checklist } from "./checklist";
export { parseReading, type Reading, type Unit } from "./reading";
export { STAGES, type CheckItem, type Stage } from "./types";
export { addressesIn, judgeEntry, judgeReading, seenOf, wanted, type EntryVerdict } from "./judge";
export { evidenceOf, type Evidence } from "./evidence";
