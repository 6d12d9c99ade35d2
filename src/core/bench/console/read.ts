import type { Circuit } from "../../circuit";
import { fingerprint } from "../../project";
import { busOf, type Observation } from "../reason/questions";
import { layOut } from "../laid/laid";

/** What a line of the bring-up program or the starter says. */
export interface ConsoleLine {
  /** Its place in the log, from 1. */
  line: number;
  kind: string;
  ref: string;
  /** Its last word, where that is a verdict. */
  says: "ok" | "fail" | "info" | null;
  text: string;
}

export interface ConsoleRead {
  lines: readonly ConsoleLine[];
  observations: readonly Observation[];
  /** Which plan the program names, if it does, and whether it is this one. */
  plan: { host: string; id: string; same: boolean } | null;
  /** The bring-up came to its last line. */
  done: boolean;
  /** The board began again before it was done. */
  restarted: boolean;
  /** Lines with characters that no program of ours prints. */
  garbled: number;
  /** What to make of it, in sentences. */
  says: readonly string[];
}

/** Longer logs are read from their end on: what was said last counts. */
export const MOST_CHARACTERS = 4_000_000;
const MOST_LINE = 2000;

const VERDICTS = new Set(["ok", "fail", "info"]);
/** Colour codes and what a monitor puts before each line. */

const ANSI = /\u001b\[[0-9;?]*[A-Za-z]/g;

const ODD = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\ufffd]/g;

/** What a scan's line lists. */
function found(text: string): string | null {
  const m = /found=([0-9A-Fa-fx,]*)/.exec(text);
  if (!m) return null;
  return [...new Set((m[1]!.match(/0x[0-9A-Fa-f]{1,2}/g) ?? []).map((x) => Number.parseInt(x, 16)))]
    .sort((a, b) => a - b)
    .map((x) => `0x${x.toString(16)}`)
    .join(",");
}

/** One line, if it is one of ours; anything may stand before it. */
function lineOf(c: Circuit, raw: string, line: number): ConsoleLine | null {
  const at = raw.lastIndexOf("YL1 ");
  if (at < 0) return null;
  const text = raw.slice(at, at + MOST_LINE).trim();
  const words = text.split(/\s+/);
  const [, kind, ref] = words;
  if (!kind || !/^[a-z]{2,12}$/.test(kind)) return null;
  const last = words.at(-1)!;
  const says = VERDICTS.has(last) ? (last as ConsoleLine["says"]) : null;
  if (kind === "done") return { line, kind, ref: "", says, text };
  if (!ref || !c.netlist.instance(ref)) return null;
  return { line, kind, ref, says, text };
}

/** Lines that speak for a part by themselves; `ask`, `open` and the like only say what is still to be done. */
const SILENT_KINDS = new Set(["ask", "open", "hello", "plan", "scan", "done"]);

/** Reads a console's text as far as it goes: partial, garbled and repeated logs too. */
export function readConsole(c: Circuit, input: string): ConsoleRead {
  const text = input.length > MOST_CHARACTERS ? input.slice(-MOST_CHARACTERS) : input;
  const raw = text.replace(ANSI, "").split(/\r\n|\r|\n/);
  const lines = raw.flatMap((r, i) => lineOf(c, r, i + 1) ?? []);
  const garbled = raw.filter((r) => (r.match(ODD)?.length ?? 0) > 0).length;
  const own = fingerprint(c.project);
  const parts = new Map<string, "works" | "no">();
  const scans = new Map<string, Observation>();
  let plan: ConsoleRead["plan"] = null;
  let done = false;
  let restarted = false;
  let running = false;
  let started = false;
  for (const l of lines) {
    if (l.kind === "hello" || l.kind === "plan") {
      // Bring-up that begins again before its end, or a starter that begins a second time.
      if (running || (l.kind === "plan" && started)) restarted = true;
      if (l.kind === "plan") started = true;
      running = l.kind === "hello";
      done = false;
      parts.clear();
      const id = /\b(?:plan|id)=([A-Z]{8})\b/.exec(l.text)?.[1];
      if (id) plan = { host: l.ref, id, same: id === own };
    } else if (l.kind === "done") {
      done = true;
      running = false;
    } else if (l.kind === "scan") {
      const bus = /\bbus=(\S+)/.exec(l.text)?.[1];
      const list = found(l.text);
      // A sketch calls its buses by its own names: the line of a board with one bus is that bus's.
      const buses = [
        ...new Set(
          c.netlist.bindings.flatMap((b) =>
            b.need.kind === "i2c" && b.host === l.ref ? (busOf(layOut(c), b.host, b.hostPin) ?? []) : [],
          ),
        ),
      ];
      const which = bus && buses.includes(bus) ? bus : buses.length === 1 ? buses[0] : undefined;
      if (which && list !== null)
        scans.set(`${l.ref} ${which}`, { q: { kind: "scan", host: l.ref, bus: which }, seen: list });
    } else if (!SILENT_KINDS.has(l.kind)) {
      // A part's one bad line outweighs its good ones until it is tried again.
      if (l.says === "fail") parts.set(l.ref, "no");
      else if (l.says === "ok" && (parts.get(l.ref) !== "no" || l.kind === "seen" || l.kind === "moved"))
        parts.set(l.ref, "works");
    }
  }
  const hosts = new Set(lines.filter((l) => l.kind === "hello" || l.kind === "plan").map((l) => l.ref));
  const usable = plan === null || plan.same;
  const observations: Observation[] = [
    ...[...hosts].map((host): Observation => ({ q: { kind: "console", host }, seen: "works" })),
    ...(plan ? [{ q: { kind: "plan" as const, host: plan.host }, seen: plan.same ? "same" : "other" }] : []),
    // A program of another plan looks at other pins: what it says of parts counts for nothing here.
    ...(usable ? [...scans.values()] : []),
    ...(usable ? [...parts].map(([ref, seen]): Observation => ({ q: { kind: "part", ref }, seen })) : []),
    ...(restarted ? [{ q: { kind: "sight" as const, what: "resets" as const }, seen: "yes" }] : []),
  ];
  const odd = text.match(ODD)?.length ?? 0;
  const says: string[] = [];
  if (!text.trim()) says.push("The log is empty: nothing was printed.");
  else if (!lines.length && odd > text.length / 10)
    says.push("Nothing here can be read: the console's speed is another than the program's 115,200 baud.");
  else if (!lines.length)
    says.push("No line of the bring-up program or the starter is in this log; its lines begin with YL1.");
  if (plan && !plan.same)
    says.push(`The program is of plan ${plan.id}, the project is ${own}: upload this plan's program, then look again.`);
  if (restarted)
    says.push(
      "The board began again in the middle: its supply gives way, something shorts it, or somebody pressed reset.",
    );
  else if (lines.length && running && !done)
    says.push("The log ends before the bring-up is done; it is read as far as it goes.");
  if (lines.length && garbled)
    says.push(`${garbled} ${garbled === 1 ? "line is" : "lines are"} garbled and left out where they can't be read.`);
  return { lines, observations, plan, done, restarted, garbled, says };
}
