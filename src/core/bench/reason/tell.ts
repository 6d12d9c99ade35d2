import { formatOhm, formatV } from "../../quantity";
import { told } from "../faults/around";
import type { Laid } from "../laid/laid";
import { UNSTEADY, type Answer, type Observation, type Question } from "./questions";

/** Questions, answers and observations in sentences. */

const SEEN: Record<string, string> = {
  beep: "beeps",
  open: "no beep",
  works: "works",
  no: "does not work",
  dim: "only dimly",
  always: "all the time",
  silent: "the board is silent",
  same: "the program of this plan",
  other: "the program of another plan",
  [UNSTEADY]: "nothing steady",
  yes: "yes",
  ok: "uploads",
  "no port": "no port appears",
  busy: "the port is in use",
  "no answer": "nothing answers",
  "wrong chip": "another chip answers",
};

/** What to do to ask it. */
export function ask(laid: Laid, q: Question): string {
  const label = (ref: string) => laid.c.netlist.instance(ref)?.label ?? ref;
  switch (q.kind) {
    case "beep":
      return `Does it beep between ${told(laid, q.a)} and ${told(laid, q.b)}?`;
    case "ohm":
      return `How many ohms between ${told(laid, q.a)} and ${told(laid, q.b)}?`;
    case "volt":
      return `How many volts at ${told(laid, q.a)} (red) against ${told(laid, q.b)} (black)?`;
    case "part":
      return `Does ${label(q.ref)} (${q.ref}) work in bring-up?`;
    case "console":
      return `Does ${label(q.host)} print anything?`;
    case "plan":
      return `Which plan does the program of ${label(q.host)} name in its first line?`;
    case "upload":
      return `What does uploading to ${label(q.host)} say?`;
    case "scan":
      return `Which addresses does the scan of ${q.bus} find?`;
    case "sight":
      return q.what === "hot" ? "Does anything get hot, or smell?" : "Does the board start again by itself?";
  }
}

/** The question as a statement's subject, short. */
export function subject(q: Question): string {
  switch (q.kind) {
    case "beep":
    case "ohm":
      return `${q.a} to ${q.b}`;
    case "volt":
      return `volts at ${q.a}`;
    case "part":
      return q.ref;
    case "console":
      return `console of ${q.host}`;
    case "plan":
      return `plan of ${q.host}`;
    case "upload":
      return `uploading to ${q.host}`;
    case "scan":
      return `scan of ${q.bus}`;
    case "sight":
      return q.what === "hot" ? "something hot" : "starts again";
  }
}

/** An answer or a reading as people write it. */
export function shown(q: Question, a: Answer): string {
  if (a === null) return "nothing that can be told";
  if (typeof a === "string") {
    if (q.kind === "scan" && a !== "silent") return a === "" ? "no address" : a;
    if (q.kind === "sight" && a === "no") return "no";
    return SEEN[a] ?? a;
  }
  if (!Number.isFinite(a)) return "OL";
  return q.kind === "ohm" ? formatOhm(a < 1 ? 0 : a) : formatV(a);
}

/** An observation in a few words: `volts at M1.VCC: 0.02 V`. */
export const observed = (o: Observation): string => `${subject(o.q)}: ${shown(o.q, o.seen)}`;
