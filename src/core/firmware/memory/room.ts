import type { Circuit } from "../../circuit";
import { TARGETS } from "..";
import { driverOf, leftOut } from "../drivers";
import { driverParts } from "../pins";
import { COSTS, type Size, type TargetCosts } from ".";
import { wayOf } from "./way";

/** Bytes that a program takes, and that there are for it. */
export interface Room {
  host: string;
  target: string;
  flash: { used: number; of: number };
  ram: { used: number; of: number };
}

/**
 * What a chip's core takes more than that of the ATmega328P: native USB, more ports (the same program of console, bus and pins,
 * compiled with the packaged core for each). Bare chips are written over a programmer and have no boot loader.
 */
const CORE: Readonly<Record<string, Size>> = { ATmega32U4: [2460, 0], ATmega2560: [830, 0] };
/**
 * The stack is no part of what the compiler counts: so much stays free for it, bytes, or as a share of the whole; on chips that have
 * hardly more than that, whose programs call hardly anything, a share of what there is.
 */
const STACK = { least: 96, share: 0.1, most: 0.4 };
const stackOf = (ram: number) => Math.min(Math.max(STACK.least, STACK.share * ram), STACK.most * ram);

const plus = (a: Size, b: Size): Size => [a[0] + b[0], a[1] + b[1]];

/** A program's size from its parts: each way of talking once, the first piece of each part, and the further ones. */
function sizeOf(
  costs: TargetCosts,
  program: "bringup" | "starter",
  parts: readonly { id: string; way: string | null }[],
): Size {
  const ways = new Set(parts.flatMap((p) => p.way ?? []));
  const seen = new Set<string>();
  let size = ways.size ? plus(costs.base[program], costs.common[program]) : costs.base[program];
  for (const w of ways) size = plus(size, costs.ways[w]?.[program] ?? [0, 0]);
  for (const { id } of parts) {
    const cost = costs.parts[id];
    if (cost) size = plus(size, (seen.has(id) ? cost.more : cost.first)[program]);
    seen.add(id);
  }
  return size;
}

/**
 * How much of a board's memory the larger of a target's two programs takes: the sum of what the compiler gave for each part, good to
 * about a seventh, more often too much than too little. Null where that was not measured: only AVR boards are so small that it matters.
 */
export function roomOf(c: Circuit, host: string, target: string): Room | null {
  const board = c.netlist.instance(host)!.part;
  const costs = COSTS[target];
  const t = TARGETS.find((x) => x.id === target);
  if (!costs || board.board!.family !== "avr" || !t || t.without(c).some((w) => w.host === host)) return null;
  const worked = driverParts(c, host, target, (b) => b)
    .filter((p) => (leftOut(p) ?? t.leaves?.(p) ?? null) === null && driverOf(p))
    .map((p) => ({ id: p.inst.part.id, ref: p.ref, way: wayOf(p.inst.part) }));
  const bare = board.id.startsWith("chip/");
  const core: Size = (bare ? undefined : CORE[board.board!.chip]) ?? [0, 0];
  const { flash_kB, upload_kB } = board.board!;
  const more = (k: "bringup" | "starter"): Size =>
    k === "starter" && target === "sketch" && logs(c, worked) ? LOG : [0, 0];
  const both = (["bringup", "starter"] as const).map((k) => plus(plus(sizeOf(costs, k, worked), more(k)), core));
  const ram = board.board!.ram_kB * 1024;
  return {
    host,
    target,
    flash: { used: Math.max(...both.map((s) => s[0])), of: (bare ? flash_kB : (upload_kB ?? flash_kB)) * 1024 },
    ram: {
      used: Math.max(...both.map((s) => s[1])),
      of: Math.round(ram - stackOf(ram)),
    },
  };
}

/** What lines to a memory card take of flash and RAM, compiled with and without: the file system, and a block of the card. */
const LOG: Size = [4700, 603];
const logs = (c: Circuit, worked: readonly { ref: string }[]) =>
  c.project.rules?.some((r) => r.do.act === "log" && worked.some((p) => p.ref === r.do.ref)) ?? false;

/** How much a sum may be over what the compiler makes of it. */
const OVER = 0.15;
/** Whether a program would not link, or its stack would run into its variables: surely, perhaps, or not. */
export function fullness(r: Room): "full" | "tight" | "free" {
  const over = (k: number) => r.flash.used * k > r.flash.of || r.ram.used * k > r.ram.of;
  return over(1 - OVER) ? "full" : over(1) ? "tight" : "free";
}

/** Boards for which no target's program fits, with the one that comes nearest. */
export function crowded(c: Circuit): Room[] {
  return c.netlist.expanded.hosts.flatMap((host) => {
    const fitting = TARGETS.filter((t) => !t.without(c).some((w) => w.host === host));
    const rooms = fitting.map((t) => roomOf(c, host, t.id));
    // One that was not measured has room.
    if (!rooms.length || rooms.some((r) => r === null || fullness(r) === "free")) return [];
    return [rooms.reduce((a, b) => (b!.flash.used < a!.flash.used ? b : a))!];
  });
}
