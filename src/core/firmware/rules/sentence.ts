import { eventOf, eventWords } from "../usb/events";
import type { Rule } from "../../project";
import type { Quantity, Takes } from "../devices/types";

/** What sentences need to know of the parts: names, and what they give and take. */
export interface Names {
  label(ref: string): string;
  quantity(ref: string, out: string): Quantity | undefined;
  takes(ref: string): Takes | null;
}

/** A quantity that is there or not: a contact, a light barrier. */
export const isYesNo = (q: Quantity) => q.unit === "" && q.digits === 0 && q.room[0] === 0 && q.room[1] === 1;
const withUnit = (v: number, unit: string | undefined) => `${v}${unit ? ` ${unit === "C" ? "°C" : unit}` : ""}`;

function whenWords(when: Rule["when"], n: Names, each: boolean): string {
  if ("every_s" in when) return `Every ${when.every_s} s`;
  const name = n.label(when.ref);
  if ("at" in when) return `Each day at ${when.at} by ${name}`;
  if ("from" in when)
    return each ? `Each day at ${when.from} by ${name}` : `From ${when.from} to ${when.to} by ${name}`;
  const q = n.quantity(when.ref, when.out);
  const opens = each ? "Each time" : "When";
  if (q && isYesNo(q)) {
    const not = ("is" in when && when.is === 0) || "below" in when;
    return `${opens} ${name} is ${not ? "not " : ""}${q.word || q.name}`;
  }
  const word = q ? q.word : when.out === "time" ? "time of day" : "";
  const what = word && word !== name ? `${name} (${word})` : name;
  if ("above" in when) return `${opens} ${what} is above ${withUnit(when.above, q?.unit)}`;
  if ("below" in when) return `${opens} ${what} is below ${withUnit(when.below, q?.unit)}`;
  return "is" in when ? `${opens} ${what} is ${withUnit(when.is, q?.unit)}` : what;
}

const list = (names: string[]) =>
  names.length < 2 ? names.join("") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;

/** A rule as a sentence. */
export function sentence(r: Rule, n: Names): string {
  const name = n.label(r.do.ref);
  const each = whenWords(r.when, n, true);
  const during = whenWords(r.when, n, false);
  switch (r.do.act) {
    case "on":
      return `${during}, ${name} is on.`;
    case "off":
      return `${during}, ${name} is off.`;
    case "set": {
      const t = n.takes(r.do.ref);
      return `${during}, ${name} is set to ${t?.word && t.word !== "number" ? `${t.word} ` : ""}${withUnit(r.do.value, t?.unit)}.`;
    }
    case "toggle":
      return `${each}, ${name} goes on or off.`;
    case "count":
      return `${each}, ${name} counts one on.`;
    case "for":
      return `${each}, ${name} is on for ${r.do.for_s} s.`;
    case "sequence": {
      const t = n.takes(r.do.ref);
      const step = ({ value, for_s }: { value: number | "on" | "off"; for_s: number }) =>
        `${typeof value === "number" ? `at ${withUnit(value, t?.unit)}` : value} for ${for_s} s`;
      const often = (r.do.times ?? 1) > 1 ? `, ${r.do.times} times` : "";
      return `${each}, ${name} is ${r.do.steps.map(step).join(", then ")}${often}.`;
    }
    case "log":
      return `${each}, ${name} gets a line.`;
    case "send": {
      const e = eventOf(r.do);
      if (typeof e === "string") return `${during}, ${name} sends what it can't.`;
      return e.kind === "control" || e.kind === "axis"
        ? `The computer's ${eventWords(e)} follows ${during.replace(/^When /, "")}.`
        : `${during}, the computer gets ${eventWords(e)}.`;
    }
    case "next": {
      const { among, ref } = r.do;
      return `${each}, ${list([ref, ...among.filter((x) => x !== ref)].map(n.label))} take turns.`;
    }
    case "follow":
      return `${name} follows ${during.replace(/^When /, "")}.`;
  }
}
