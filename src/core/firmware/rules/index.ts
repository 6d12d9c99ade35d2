/** Rules: what a program does when. Read from the project, or suggested from its parts; printed by each target. */
import type { Project, Rule } from "../../project";
import type { DriverPart } from "../types";
import type { UsbHost } from "../usb/host";
import { givesOf, outName, resolve, takesOf, told, type Resolved } from "./resolve";
import { sentence, type Names } from "./sentence";
import { suggest } from "./suggest";

/**
 * Names for sentences from the parts of a board; what is on another board is called by its reference. `label`: as people write
 * it, or as it can stand in a program.
 */
export const namesOf = (parts: readonly DriverPart[], label: (p: DriverPart) => string): Names => ({
  label: (ref) => {
    const p = parts.find((x) => x.ref === ref);
    return (p && label(p)) || ref;
  },
  quantity: (ref, out) => {
    const p = parts.find((x) => x.ref === ref);
    return p && givesOf(p).find((q) => outName(q) === out || q.name === out);
  },
  takes: (ref) => {
    const p = parts.find((x) => x.ref === ref);
    return p ? takesOf(p) : null;
  },
});

/** What a board's program does by rule, and what it can't. */
export interface Ruled {
  rules: readonly { rule: Rule; says: string; resolved: Resolved }[];
  /** Rules that this board can't follow, with the reason. */
  left: readonly { rule: Rule; says: string; why: string }[];
  /** Nobody has written any: these are suggested. */
  suggested: boolean;
}

/** What a board's program does not follow, as lines of a comment; nothing when it follows all. `mark`: what begins a comment. */
export const leftWords = (r: Ruled, mark: string): string =>
  r.left
    .map(({ says, why }) => `${mark} Not here: ${says} ${why}.`.replace(/[^\x20-\x7e]/g, " ").replace(/\\/g, "/"))
    .join("\n");

/** The rules of a board's program. Marks the parts that a rule tells something: they do nothing by themselves. */
export function ruled(project: Project, parts: readonly DriverPart[], usb: UsbHost): Ruled {
  const list = project.rules ?? suggest(parts, usb);
  const names = namesOf(parts, (p) => p.label);
  const all = list.map((rule) => {
    // Programs are written in plain characters.
    const says = sentence(rule, names).replace(/°/g, "");
    return { rule, says, resolved: resolve(rule, parts, says, usb) };
  });
  const rules = all.flatMap((x) => (typeof x.resolved === "string" ? [] : [{ ...x, resolved: x.resolved }]));
  for (const r of rules) for (const a of told(r.resolved)) a.part.ruled = true;
  return {
    rules,
    left: all.flatMap((x) => (typeof x.resolved === "string" ? [{ rule: x.rule, says: x.says, why: x.resolved }] : [])),
    suggested: project.rules === undefined,
  };
}
export { givesOf, outName, takesOf } from "./resolve";
