/** The starter of a plan, interpreted: the same tasks, rules and lines as the programs that are uploaded, against parts of the bench. */
import type { Circuit } from "../../circuit";
import { fingerprint } from "../../project";
import { targetById } from "..";
import { LANE_FULL, laneOfByte } from "../devices/lanes";
import { driverParts } from "../pins";
import { pagesOf, PAGE_MS, ROW_MS, type Page } from "../pages";
import { ruled } from "../rules";
import type { DriverPart } from "../types";
import { blinking, hold_ms, napOf, readers, settle_ms, watchedOf } from "../sleep";
import { usbHostOf } from "../usb/host";
import { columnsOf, type Columns } from "../logging/columns";
import type { SimBench } from "./bench";
import { plainProgramOf } from "./plain";
import { simPart, type Pins, type SimPart } from "./parts";
import { rulesOf } from "./rules";
import { fixed } from "./show";
import type { Said, SimProgram, Tried } from "./types";

export type { SimBench } from "./bench";
export type { Said, SimProgram, Tried } from "./types";
export type { SimPart } from "./parts";

/** A pass of the loop takes some time: what wants to go on at once does so in the next one, ms. */
const PASS_MS = 0.1;
/** How often rules look, ms. */
const RULES_MS = 20;
const REPORT_MS = 1000;

/** Levels at the board, or as bits of the part on whose lines a part hangs. */
const pinsOf = (bench: SimBench, parts: ReadonlyMap<string, SimPart>): Pins => {
  const carrier = (p: DriverPart, pin: string) => {
    const at = p.through?.get(pin);
    return at?.on && { machine: parts.get(at.on.inst.ref)?.machine, bit: at.bit };
  };
  return {
    put(p, pin, level, now) {
      const at = carrier(p, pin);
      if (at?.machine && p.through!.get(pin)!.lane) at.machine.lane(at.bit, level ? LANE_FULL : 0, now);
      else if (at?.machine) {
        const was = at.machine.want;
        at.machine.want = level ? was | (1 << at.bit) : was & ~(1 << at.bit);
        if (at.machine.want !== was && at.machine.fresh) at.machine.turn(now);
      }
      bench.drive(p.inst.ref, pin, level, now);
    },
    dim(p, pin, percent, now) {
      const at = carrier(p, pin);
      const byte = Math.trunc((percent * 255) / 100);
      if (at?.machine && p.through!.get(pin)!.lane)
        at.machine.lane(at.bit, laneOfByte(p.activeLow ? 255 - byte : byte), now);
      bench.drive(p.inst.ref, pin, percent > 0 !== p.activeLow ? 1 : 0, now);
      bench.dim(p.inst.ref, percent, now);
    },
    look(p, pin, rest, now) {
      const at = carrier(p, pin);
      if (!at) return bench.level(p.inst.ref, pin, now);
      const bits = at.machine?.fresh ? at.machine.out.get("bits") : undefined;
      return bits === undefined ? rest : (((bits >> at.bit) & 1) as 0 | 1);
    },
    served: (p, now) =>
      [...(p.through ?? [])].every(([pin, at]) => {
        if (!at.volts && !at.lane) return true;
        const machine = carrier(p, pin)?.machine;
        if (at.volts && machine && !machine.fresh) machine.turn(now);
        return machine?.fresh ?? false;
      }),
  };
};

/** A line of a log, as the other targets write it. */
function logLine({ clock, readings }: Columns, parts: ReadonlyMap<string, SimPart>, now: number): string {
  const value = (p: DriverPart, name: string) => parts.get(p.inst.ref)?.values?.()?.get(name) ?? null;
  const time = clock && ["hour", "minute", "second"].map((n) => value(clock, n));
  return [
    String(Math.floor(now / 1000)),
    ...(time ? [time[0] === null ? "" : time.map((v) => String(v).padStart(2, "0")).join(":")] : []),
    ...readings.map(({ p, q }) => {
      const v = value(p, q.name);
      return v === null ? "" : fixed(v, q.digits, q.digits);
    }),
  ].join(",");
}

/** Rows of a display of letters, one call all of them. */
const rowsOf = (page: Page, parts: ReadonlyMap<string, SimPart>) => (now: number) => {
  const line = parts.get(page.p.inst.ref)!.line!;
  if (page.title !== null) line(0, page.title);
  const from = page.pages > 1 ? (Math.floor(now / PAGE_MS) % page.pages) * page.rows : 0;
  for (let row = 0; row < page.rows && page.says.length; row++) {
    const q = page.says[from + row];
    line(page.first + row, (q && parts.get(q.inst.ref)!.show!()) ?? "");
  }
};

/** The program of a board. Works what a target's starter works. */
export function programOf(c: Circuit, host: string, target: Tried, bench: SimBench): SimProgram {
  if (target === "avr-c") return plainProgramOf(c, host, bench);
  const said: Said[] = [];
  let now = 0;
  const say = (line: string) => void said.push({ at: now, line });
  const leaves = targetById(target)?.leaves;
  const all = driverParts(c, host, target, (b) => b);
  const rules = ruled(c.project, all, usbHostOf(c, host, target));
  const parts = new Map<string, SimPart>();
  const pins = pinsOf(bench, parts);
  for (const p of all) {
    const s = leaves?.(p) ? null : simPart(p, bench, pins, say);
    if (s) parts.set(p.inst.ref, s);
  }
  /** What the computer was told last. */
  const sent = new Map<string, number>();
  const ruling = rulesOf(
    rules.rules.map((r) => r.resolved),
    {
      value: (p, name) => parts.get(p.inst.ref)?.values?.()?.get(name) ?? null,
      log: (card) => {
        const line = logLine(columnsOf(all), parts, now);
        const fresh = parts.get(card.inst.ref)?.values?.() != null;
        say(`${fresh ? "log" : "not on the card:"} ${line}`);
      },
      tell: (p, v) => {
        if (!p.usb) parts.get(p.inst.ref)?.tell?.(v, now);
        else if ((sent.get(p.id) ?? 0) !== v) {
          sent.set(p.id, v);
          say(`usb ${p.label} ${p.usb.takes.range[1] === 1 ? (v ? "down" : "up") : v}`);
        }
      },
    },
    watchedOf(rules.rules.map((r) => r.resolved)),
  );
  const report = () => {
    const words = [...parts.values()].map((s) => s.show?.() ?? "").filter((w) => w !== "");
    say([...words, `running ${Math.floor(now / 1000)} s`].join("  "));
  };
  const nap = napOf(c, host, target);
  let woke = 0;
  const hold = nap
    ? hold_ms(
        nap,
        rules.rules.map((r) => r.resolved),
        all,
      )
    : 0;
  const settle = settle_ms(rules.rules.map((r) => r.resolved));
  interface Task {
    next: number;
    /** Absent: it tells itself. */
    every?: number;
    do(now: number): number | void;
  }
  const pages = pagesOf(
    all.filter((p) => parts.has(p.inst.ref)),
    (p) => parts.get(p.inst.ref)?.show !== undefined,
  );
  const tasks: Task[] = [
    ...[...parts.values()].flatMap((s) => (s.turn ? [{ next: 0, do: (t: number) => s.turn!(t) }] : [])),
    ...pages.map((page) => ({ next: 0, every: ROW_MS * page.rows, do: rowsOf(page, parts) })),
    ...(ruling ? [{ next: 0, every: RULES_MS, do: (t: number) => void (t - woke < hold || ruling.look(t)) }] : []),
    { next: 0, every: REPORT_MS, do: report },
  ];
  /** The rest of a round is slept: what was due meanwhile is done on waking. */
  const sleep = (n: NonNullable<typeof nap>) => {
    const from = Math.max(woke + n.awake_ms, (ruling?.busy() ?? -settle) + settle);
    for (const p of blinking(all)) parts.get(p.inst.ref)?.tell?.(0, from);
    for (const p of readers(all)) {
      const machine = parts.get(p.inst.ref)?.machine;
      if (machine) machine.fresh = false;
    }
    woke = from + n.asleep_ms;
    for (const t of tasks) t.next = Math.max(t.next, woke);
  };
  say(`YL1 plan ${host} id=${fingerprint(c.project)} info`);
  return {
    said,
    parts,
    left: all.filter((p) => !parts.has(p.inst.ref)).map((p) => ({ ref: p.ref, label: p.label })),
    run(until) {
      for (;;) {
        let first = tasks[0]!;
        for (const t of tasks) if (t.next < first.next) first = t;
        if (nap && first.next >= woke + nap.awake_ms && first.next - (ruling?.busy() ?? -settle) >= settle) {
          sleep(nap);
          continue;
        }
        if (first.next > until) break;
        now = first.next;
        const pause = first.do(now);
        first.next = now + (first.every ?? Math.max(PASS_MS, pause ?? 0));
      }
      now = until;
    },
  };
}
