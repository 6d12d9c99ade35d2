import { code } from "../../words";
import type { Driven } from "../simulated/faulty-stage";
import type { Edge } from "./bus-waves";

/** Identifiers of a value change dump are made of these characters. */
const FIRST = 33;
const COUNT = 94;
const idOf = (i: number): string => {
  let out = "";
  for (let n = i; ; n = Math.floor(n / COUNT) - 1) {
    out = String.fromCharCode(FIRST + (n % COUNT)) + out;
    if (n < COUNT) return out;
  }
};
/** A name without spaces, as readers of such files want it. */
const plain = (name: string) => name.replace(/[^A-Za-z0-9_.]/g, "_").replace(/\./g, "_");

/** Microseconds are too long for a bus. */
const NS_PER_MS = 1e6;

/**
 * What pins did as a value change dump (IEEE 1364, clause 18): one wire a pin of a board, times in nanoseconds. `waves`: what went
 * over its buses.
 */
export function writeVcd(
  title: string,
  driven: readonly Driven[],
  until_ms: number,
  waves: readonly Edge[] = [],
): string {
  const end = Math.round(until_ms * NS_PER_MS);
  const edges = [
    ...driven.map((d) => ({ at_ns: Math.round(d.at * NS_PER_MS), hostPin: d.hostPin, level: d.level })),
    ...waves.filter((w) => w.at_ns <= end),
  ].sort((x, y) => x.at_ns - y.at_ns);
  const pins = [...new Set(edges.map((d) => d.hostPin))].sort();
  const ids = new Map(pins.map((p, i) => [p, idOf(i)]));
  const lines = [
    `$comment ${code(title.replace(/\$/g, ""), 120)} $end`,
    "$timescale 1 ns $end",
    "$scope module bench $end",
    ...pins.map((p) => `$var wire 1 ${ids.get(p)!} ${plain(p)} $end`),
    "$upscope $end",
    "$enddefinitions $end",
    "$dumpvars",
    ...pins.map((p) => `x${ids.get(p)!}`),
    "$end",
  ];
  let at = -1;
  for (const e of edges) {
    if (e.at_ns !== at) lines.push(`#${(at = e.at_ns)}`);
    lines.push(`${e.level}${ids.get(e.hostPin)!}`);
  }
  if (end > at) lines.push(`#${end}`);
  return `${lines.join("\n")}\n`;
}
