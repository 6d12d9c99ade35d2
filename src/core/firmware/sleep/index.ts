/** Sleep between readings, by boards whose programs can be woken by the chip's own clock: how long, and what that asks of the parts. */
import type { Circuit } from "../../circuit";
import { canSleep } from "../../circuit/power";
import type { Part } from "../../parts/catalogue";
import { driverOf } from "../drivers";
import { CHIPS } from "../targets/avr-c/chips";
import { lastsOf, outputsOf, sequencesOf } from "../rules/print";
import { logsOf, told, type Acts, type Resolved } from "../rules/resolve";
import type { DriverPart } from "../types";
import { deviceOf, needs_ms } from "./needs";

export { needs_ms } from "./needs";

/** What a program does with a round, ms. */
export interface Nap {
  awake_ms: number;
  asleep_ms: number;
}

const OWN_USB = "its own USB would be lost to the computer at every nap";
const NO_CALL = "its core has no call for it that is the same on every board";

/** By target: why its program does not let this board sleep, or null. */
const WAYS: Readonly<Record<string, (board: Part) => string | null>> = {
  sketch: ({ board }) => {
    if (board!.family === "esp32") return null;
    if (board!.family !== "avr" || !board!.targets.sketch) return NO_CALL;
    return board!.usb.kind === "native" ? OWN_USB : null;
  },
  micropython: ({ board }) => {
    if (board!.family === "esp8266") return "it wakes from its sleep only by a reset, over a wire from D0 to RST";
    return ["esp32", "rp2040", "rp2350"].includes(board!.family) ? null : NO_CALL;
  },
  "avr-c": ({ board }) => (CHIPS[board!.chip]?.watchdog ? null : "its watchdog can only reset it, not wake it"),
  python: () => "a board that runs Linux does not sleep between readings",
};

/** Why the programs of a target do not let a board sleep, or null. */
export const sleepless = (board: Part, target: string): string | null =>
  WAYS[target]?.(board) ?? (canSleep(board) ? null : "what it draws asleep is not known");

/** How the program of a board sleeps, or null: nobody asked for it, or the program can't. */
export function napOf(c: Circuit, host: string, target: string): Nap | null {
  const { sleep, part } = c.netlist.instance(host)!;
  if (!sleep || sleepless(part, target) !== null) return null;
  return { awake_ms: sleep.awake_s * 1000, asleep_ms: (sleep.every_s - sleep.awake_s) * 1000 };
}

/** A look of the rules, and a turn of the loop behind it. */
const TURN_MS = 200;

/** Rules have at least so much of a round. */
const LEFT_MS = 500;

/** A line of the console comes once a second: two of them, so that the second has what the first still waited for. */
const REPORT_MS = 2000;

/** Seconds that a round must be awake, and the part that needs the most of them. */
export function awakeNeeded(parts: readonly DriverPart[]): { s: number; by: DriverPart | null } {
  const all = parts.map((p) => ({ p, ms: needs_ms(p) })).sort((a, b) => b.ms - a.ms);
  const most = all[0];
  return { s: Math.ceil((REPORT_MS + (most?.ms ?? 0)) / 1000), by: most && most.ms > REPORT_MS / 2 ? most.p : null };
}

/** Parts whose readings are of the round before when the program wakes: they count as none until they are read anew. */
export const readers = (parts: readonly DriverPart[]) =>
  parts.filter((p) => {
    const d = deviceOf(p);
    return d !== null && d.out.length > 0 && !d.takes && p.outs === undefined;
  });

/** How long rules wait after waking for what they go by; a line of a log holds all readings. */
export function hold_ms({ awake_ms }: Nap, rules: readonly Resolved[], parts: readonly DriverPart[]): number {
  const all = readers(parts);
  const logs = logsOf(rules).length > 0;
  const seen = new Set(rules.flatMap((r) => ("seen" in r ? [r.seen.part.inst.ref] : [])));
  const waited = all.filter((p) => logs || seen.has(p.inst.ref)).map(needs_ms);
  // However long a part takes, the rules have their turn before it sleeps.
  return Math.min(Math.max(0, ...waited), awake_ms - LEFT_MS);
}

/**
 * Outputs that nobody may be left alone with: what moves, switches or sounds. A program sleeps only while they rest, for nothing
 * could stop them meanwhile, and a timer that shares out their power stands still.
 */
export const watchedOf = (rules: readonly Resolved[]): Acts[] =>
  outputsOf(rules).filter(({ part }) => {
    const d = deviceOf(part);
    return d !== null && (d.over?.kind === "pins" || (d.proof?.kind === "seen" && d.proof.careful !== undefined));
  });

/** The largest number that a rule tells an output, from where it rests. */
function farthest(rules: readonly Resolved[], { part, takes, on }: Acts): number {
  const ends = [...takes.range];
  const values = rules.flatMap((r): number[] => {
    if (!told(r).some((a) => a.part.id === part.id)) return [];
    if (r.kind === "while") return [r.value];
    if (r.kind === "follow" || ("does" in r && r.does.act === "count")) return ends;
    return "does" in r && r.does.act === "sequence" ? r.does.steps.map((s) => s.value) : [on];
  });
  return Math.max(0, ...values.map((v) => Math.abs(v - takes.rest)));
}

/**
 * How long it takes until what was told to rest does so: its turn comes, and a stepper goes all the way back, ms. 0: the rules tell
 * nothing that has to be waited for.
 */
export const settle_ms = (rules: readonly Resolved[]): number =>
  Math.max(
    lastsOf(rules).length || sequencesOf(rules).length ? TURN_MS : 0,
    ...watchedOf(rules).map((a) => {
      const d = deviceOf(a.part)!;
      return TURN_MS + needs_ms(a.part) + (a.takes.word === "steps" ? farthest(rules, a) * d.every : 0);
    }),
  );

/** Lights that blink by themselves: nobody wants them lit for as long as the program happens to sleep. */
export const blinking = (parts: readonly DriverPart[]) => parts.filter((p) => driverOf(p)?.id === "led" && !p.ruled);

/** What a sleeping program does not hear: contacts, and what others send once. What goes on sending is heard in the next round. */
export function deafTo(parts: readonly DriverPart[]): DriverPart[] {
  return parts.filter((p) => {
    const d = deviceOf(p);
    if (!d) return ["button", "key-grid"].includes(driverOf(p)?.id ?? "");
    if (d.over?.kind === "uart") return d.over.frame === "any";
    if (d.over?.kind === "pins") return d.proof?.kind === "watch";
    return d.over?.kind === "infrared" || d.over?.kind === "matrix";
  });
}
