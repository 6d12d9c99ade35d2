import type { Driven } from "../simulated/faulty-stage";

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

/** What pins did as a value change dump (IEEE 1364, clause 18): one wire a pin of a board, times in microseconds. */
export function writeVcd(title: string, driven: readonly Driven[], until_ms: number): string {
  const pins = [...new Set(driven.map((d) => d.hostPin))].sort();
  const ids = new Map(pins.map((p, i) => [p, idOf(i)]));
  const lines = [
    `$comment ${title.replace(/\$/g, "").slice(0, 120)} $end`,
    "$timescale 1 us $end",
    "$scope module bench $end",
    ...pins.map((p) => `$var wire 1 ${ids.get(p)!} ${plain(p)} $end`),
    "$upscope $end",
    "$enddefinitions $end",
    "$dumpvars",
    ...pins.map((p) => `x${ids.get(p)!}`),
    "$end",
  ];
  let at = -1;
  for (const d of driven) {
    const t = Math.round(d.at * 1000);
    if (t !== at) lines.push(`#${(at = t)}`);
    lines.push(`${d.level}${ids.get(d.hostPin)!}`);
  }
  const end = Math.round(until_ms * 1000);
  if (end > at) lines.push(`#${end}`);
  return `${lines.join("\n")}\n`;
}
