import { eventOf } from "../usb/events";
import type { UsbHost } from "../usb/host";
import type { Rule } from "../../project";
import type { Quantity, Takes } from "../devices/types";
import { driverOf } from "../drivers";
import type { DriverPart } from "../types";

/** An input of a rule as the program has it. */
export interface Seen {
  part: DriverPart;
  quantity: Quantity;
  /** The quantity's place among those of its part. */
  k: number;
}
/** An output of a rule as the program has it. */
export interface Acts {
  part: DriverPart;
  takes: Takes;
  /** What "on" means for it. */
  on: number;
}

/** A rule with its numbers as the program counts them. */
export type Resolved = { says: string } & (
  | { kind: "while"; seen: Seen; test: Test; acts: Acts; value: number }
  | { kind: "each"; seen: Seen; test: Test; does: Does }
  | { kind: "every"; ms: number; does: Does }
  /** `time`: it follows the time of day of a clock. */
  | { kind: "follow"; seen: Seen; time?: Clock; acts: Acts }
);
export type Test =
  | { op: "above" | "below"; at: number; back: number }
  | { op: "is"; at: number }
  /** Minutes of the day by a clock, the second no more; over midnight when it is the lesser. */
  | ({ op: "between"; from: number; to: number } & Clock);
export type Does =
  | { act: "toggle"; acts: Acts }
  | { act: "count"; acts: Acts }
  | { act: "for"; acts: Acts; ms: number }
  | { act: "sequence"; acts: Acts; steps: readonly { value: number; ms: number }[]; times: number }
  | { act: "next"; among: readonly Acts[] }
  /** A line of readings to a card. `acts` tells the card nothing: it stands for it. */
  | { act: "log"; acts: Acts };

/** What a quantity is called in a rule: its name without its unit's fraction. */
export const outName = (q: Quantity) => q.name.split("_")[0]!;

export const givesOf = (p: DriverPart): readonly Quantity[] => driverOf(p)?.gives?.(p) ?? [];
export const takesOf = (p: DriverPart): Takes | null => driverOf(p)?.takes?.(p) ?? null;

/** The hours and minutes of a clock. */
export interface Clock {
  hour: Quantity;
  minute: Quantity;
}
/** By this name a rule follows the time of day of a clock. */
export const TIME_OF_DAY = "time";
/** A part's hours and minutes, where it is a clock. */
export function clockOf(p: DriverPart): Clock | null {
  const [hour, minute] = ["hour", "minute"].map((n) => givesOf(p).find((q) => q.name === n));
  return hour && minute ? { hour, minute } : null;
}
const DAY_MIN = 24 * 60;
const minutes = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));

/** What a rule that goes by the time of day looks at, or why it can't. */
function timeSeen(
  parts: readonly DriverPart[],
  when: Extract<Rule["when"], { from: string } | { at: string }>,
  moment: boolean,
) {
  const part = parts.find((p) => p.ref === when.ref);
  if (!part) return `${when.ref} is not worked by this board's program`;
  const clock = clockOf(part);
  if (!clock) return `${part.label} is no clock: it does not give the time of day`;
  const from = minutes("at" in when ? when.at : when.from);
  // What happens once happens in that minute, not when the board is started hours later.
  const to = "at" in when || moment ? (from + 1) % DAY_MIN : minutes(when.to);
  const seen: Seen = { part, quantity: clock.hour, k: givesOf(part).indexOf(clock.hour) };
  return { seen, test: { op: "between", ...clock, from, to } satisfies Test };
}

const seenOf = (parts: readonly DriverPart[], ref: string, out: string): Seen | string => {
  const part = parts.find((p) => p.ref === ref);
  if (!part) return `${ref} is not worked by this board's program`;
  const list = givesOf(part);
  const k = list.findIndex((q) => outName(q) === out || q.name === out);
  return k >= 0
    ? { part, quantity: list[k]!, k }
    : `${part.label} does not give "${out}"${list.length ? `; it gives ${list.map(outName).join(", ")}` : ""}`;
};
const actsOf = (parts: readonly DriverPart[], ref: string): Acts | string => {
  const part = parts.find((p) => p.ref === ref);
  if (!part) return `${ref} is not worked by this board's program`;
  const takes = takesOf(part);
  return takes ? { part, takes, on: takes.on ?? takes.range[1] } : `${part.label} can't be told anything by a rule`;
};

/** What goes to the computer, or why it can't. */
function sentOf(d: Extract<Rule["do"], { act: "send" }>, usb: UsbHost | undefined): Acts | string {
  const event = eventOf(d);
  if (typeof event === "string") return event;
  if (!usb || d.ref !== usb.ref) return `${d.ref} is another board: what it sends is told by its own program`;
  const part = usb.out(event);
  return typeof part === "string" ? part : { part, takes: part.usb!.takes, on: part.usb!.takes.on! };
}

/** A card that a line goes to, or why it can't. */
function cardOf(parts: readonly DriverPart[], ref: string): Acts | string {
  const part = parts.find((p) => p.ref === ref);
  if (!part) return `${ref} is not worked by this board's program`;
  if (!driverOf(part)?.logs?.(part)) return `${part.label} is no memory card: no lines can be written to it`;
  if (part.target === "avr-c") return "plain C has no file system here: what is logged is for your own code";
  if (part.target === "python") return "a computer has files of its own: what is logged there is for your own code";
  return { part, takes: { word: "line", unit: "", digits: 0, range: [0, 1], rest: 0 }, on: 1 };
}

const scaled = (q: { digits: number }, v: number) => Math.round(v * 10 ** q.digits);

function testOf(when: Rule["when"], q: Quantity): Test {
  if ("above" in when) return { op: "above", at: scaled(q, when.above), back: scaled(q, when.hysteresis ?? 0) };
  if ("below" in when) return { op: "below", at: scaled(q, when.below), back: scaled(q, when.hysteresis ?? 0) };
  return { op: "is", at: "is" in when ? scaled(q, when.is) : 0 };
}

/** What no reading ever is: programs count in 32 bits. */
const MOST = 2 ** 31 - 1;
const tooMuch = (t: Test): boolean => t.op !== "between" && Math.abs(t.at) + ("back" in t ? t.back : 0) > MOST;

/** What a rule goes by, or why it can't; null for what goes by the time that has passed. */
function lookOf(
  { when, do: { act } }: Rule,
  parts: readonly DriverPart[],
): { seen: Seen; test: Test; time?: Clock } | null | string {
  if ("every_s" in when) return null;
  if ("out" in when && when.out === TIME_OF_DAY && act === "follow") {
    const part = parts.find((p) => p.ref === when.ref);
    const time = part && clockOf(part);
    if (part && time)
      return {
        seen: { part, quantity: time.hour, k: givesOf(part).indexOf(time.hour) },
        test: { op: "is", at: 0 },
        time,
      };
  }
  if (!("out" in when)) return timeSeen(parts, when, act !== "on" && act !== "off" && act !== "set");
  const seen = seenOf(parts, when.ref, when.out);
  if (typeof seen === "string") return seen;
  const test = testOf(when, seen.quantity);
  const at = "above" in when ? when.above : "below" in when ? when.below : "is" in when ? when.is : 0;
  return tooMuch(test) ? `${seen.part.label} can never be ${at}` : { seen, test };
}

const beyond = ({ part, takes }: Acts, value: number): string | null => {
  const [least, most] = takes.range.map((v) => v / 10 ** takes.digits) as [number, number];
  return value < least || value > most ? `${part.label} takes ${least} to ${most}, not ${value}` : null;
};

/** One thing after the other with its numbers as the program counts them, or why it can't be. */
function sequenceOf(d: Extract<Rule["do"], { act: "sequence" }>, acts: Acts): Does | string {
  const steps = d.steps.map(({ value, for_s }) => ({
    value: value === "on" ? acts.on : value === "off" ? acts.takes.rest : scaled(acts.takes, value),
    ms: Math.round(for_s * 1000),
  }));
  const bad = d.steps.flatMap((s) => (typeof s.value === "number" ? (beyond(acts, s.value) ?? []) : []))[0];
  return bad ?? { act: "sequence", acts, steps, times: d.times ?? 1 };
}

/** A rule by the parts of one board, or why it can't be done there. `says`: its sentence. */
export function resolve(r: Rule, parts: readonly DriverPart[], says: string, usb?: UsbHost): Resolved | string {
  const acts =
    r.do.act === "send" ? sentOf(r.do, usb) : r.do.act === "log" ? cardOf(parts, r.do.ref) : actsOf(parts, r.do.ref);
  if (typeof acts === "string") return acts;
  const look = lookOf(r, parts);
  if (typeof look === "string") return look;
  const does = (): Does | string => {
    if (r.do.act === "count" || r.do.act === "toggle") return { act: r.do.act, acts };
    if (r.do.act === "log") return { act: "log", acts };
    if (r.do.act === "sequence") return sequenceOf(r.do, acts);
    if (r.do.act === "for") return { act: "for", acts, ms: Math.round(r.do.for_s * 1000) };
    const among = ("among" in r.do ? [r.do.ref, ...r.do.among.filter((x) => x !== r.do.ref)] : [r.do.ref]).map((x) =>
      actsOf(parts, x),
    );
    const bad = among.find((x) => typeof x === "string");
    return bad ?? { act: "next", among: among as Acts[] };
  };
  const follows = r.do.act === "follow" || (acts.part.usb && acts.takes.range[1] > 1);
  if (follows)
    return look
      ? { says, kind: "follow", seen: look.seen, acts, ...(look.time && { time: look.time }) }
      : "it follows nothing";
  if (
    r.do.act === "toggle" ||
    r.do.act === "count" ||
    r.do.act === "next" ||
    r.do.act === "for" ||
    r.do.act === "sequence" ||
    r.do.act === "log"
  ) {
    const d = does();
    if (typeof d === "string") return d;
    if ("every_s" in r.when) return { says, kind: "every", ms: Math.round(r.when.every_s * 1000), does: d };
    return { says, kind: "each", ...look!, does: d };
  }
  if (!look) return "it needs something to go by";
  const value =
    r.do.act === "on" || r.do.act === "send"
      ? acts.on
      : "value" in r.do
        ? scaled(acts.takes, r.do.value)
        : acts.takes.rest;
  const bad = "value" in r.do ? beyond(acts, r.do.value) : null;
  if (bad !== null) return bad;
  return { says, kind: "while", ...look, acts, value };
}

/** All parts that a resolved rule tells something. */
export const told = (r: Resolved): readonly Acts[] =>
  r.kind === "while" || r.kind === "follow"
    ? [r.acts]
    : r.does.act === "next"
      ? r.does.among
      : r.does.act === "log"
        ? []
        : [r.does.acts];
/** Cards that rules write lines to, each once. */
export const logsOf = (rules: readonly Resolved[]): DriverPart[] => [
  ...new Set(rules.flatMap((r) => ("does" in r && r.does.act === "log" ? [r.does.acts.part] : []))),
];
