import type { Circuit } from "../circuit";
import type { BasicEdit } from "../project";

/** stop: may damage something or someone · fault: will not work · risk: may work unreliably · note: worth knowing. */
export const SEVERITIES = ["stop", "fault", "risk", "note"] as const;
export type Severity = (typeof SEVERITIES)[number];

export interface Fix {
  id: string;
  label: string;
  /** What the fix does, as edits of the project: applied, previewed and undone like any other. */
  edits: BasicEdit[];
}

export interface Finding {
  rule: string;
  severity: Severity;
  /** Places: `REF.PIN`, `REF`, or a net's name. */
  at: string[];
  message: string;
  evidence: Record<string, number | string>;
  fixes: Fix[];
  /** The reason, when the person has read and accepted it. */
  acknowledged?: string;
}

/** A value of a part that a finding rests on, by its path in the part's data, and what it is called. */
export interface Rest {
  ref: string;
  path: string;
  called: string;
}

/** A finding as a rule states it: fixes may be worked out when somebody asks for them. */
export interface Found extends Omit<Finding, "fixes"> {
  /** The values that decide it: their certainty is told with it. */
  rests?: Rest[];
  fixes: Fix[] | (() => Fix[]);
}

export interface Rule {
  rule: string;
  /** The rule in plain words, for the ledger and the handbook. */
  says: string;
  check(c: Circuit): Found[];
}
