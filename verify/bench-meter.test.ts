import { execFileSync } from "node:child_process";
import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { BENCHES } from "../src/core/bench/reason/cases";
import { reasonOf, type Hypothesis, type Reason } from "../src/core/bench/reason";
import { circuitOf } from "../src/core/circuit";
import { catalogue } from "../src/core/testing";
import { evaluate } from "../src/core/quantity";

/**
 * What the simulated bench's meter shows, against ngspice: every wire a resistor of its own, rails as sources, resistors and what
 * modules draw as they are. Pieces with junctions are left to the circuits' own comparison.
 */
const WIRE_OHM = 1e-4;
const OPEN_OHM = 1e12;
const FEW = 7;

/** A deck of the build with a fault: one node a terminal, wires as resistors between them. */
function deck(r: Reason, h: Hypothesis): { text: string; node(t: number): string; clean: Set<number> } {
  const { laid } = r;
  const change = h.faults[0]?.change ?? {};
  const cut = new Set(change.cut ?? []);
  const node = (t: number) => `n${t}`;
  const lines: string[] = [];
  let k = 0;
  const resistor = (a: number, b: number, ohm: number) => lines.push(`R${k++} ${node(a)} ${node(b)} ${ohm}`);
  for (const [a, b] of laid.joins) resistor(a, b, WIRE_OHM);
  for (const w of laid.wires) if (!cut.has(w.i)) for (const [a, b] of w.pairs) resistor(a, b, WIRE_OHM);
  for (const [a, b] of change.join ?? []) resistor(laid.place.get(a)!, laid.place.get(b)!, WIRE_OHM);
  const ohms = new Map((change.ohm ?? []).map((x) => [x.ref, x.ohm]));
  const dead = new Set(change.dead ?? []);
  /** Nets that anything but resistors touches: what they stand at is not this test's. */
  const dirty = new Set<number>();
  for (const e of laid.elements) {
    if (dead.has(e.of.ref) || e.of.kind === "capacitor") continue;
    if (e.of.kind === "resistor" && !(e.of.def?.kind === "resistor" && (e.of.def.track || e.of.span)))
      resistor(e.a, e.b, ohms.get(e.of.ref) ?? e.of.ohm!);
    else if (e.of.kind === "load" && e.of.module && e.of.def?.kind === "load")
      resistor(e.a, e.b, evaluate(e.of.def.V.typ, laid.c.netlist.instance(e.of.ref)!.vars) / e.of.A!.typ);
    else
      for (const t of [e.a, e.b, ...(e.control === undefined ? [] : [e.control])])
        if (!h.state.held.has(h.state.root(t))) dirty.add(h.state.root(t));
  }
  // Sources at one terminal of each rail that the build holds; all against one zero.
  const done = new Set<number>();
  laid.terminals.forEach((_, t) => {
    const root = h.state.root(t);
    const held = h.state.held.get(root);
    if (held && !done.has(root)) {
      done.add(root);
      lines.push(`V${k++} ${node(t)} 0 ${held.V.typ}`);
    }
    lines.push(`RL${t} ${node(t)} 0 ${OPEN_OHM}`);
  });
  const clean = new Set(laid.terminals.flatMap((_, t) => (dirty.has(h.state.root(t)) ? [] : [t])));
  return { text: ["* build", ...lines, ".options gmin=1e-15 reltol=1e-6", ".control", "op"].join("\n"), node, clean };
}

function run(text: string, names: readonly string[]): Map<string, number> {
  const file = path.join(fs.mkdtempSync(path.join(os.tmpdir(), "meter-")), "deck.cir");
  fs.writeFileSync(file, [text, ...names.map((n) => `print V(${n})`), ".endc", ".end"].join("\n"));
  let out = "";
  try {
    out = execFileSync("ngspice", ["-b", file], {
      encoding: "utf8",
      stdio: ["ignore", "pipe", "pipe"],
      timeout: 60_000,
    });
  } catch (e) {
    // It ends with 1 after a deck that only prints.
    out = String((e as { stdout?: string }).stdout ?? "");
  }
  fs.rmSync(path.dirname(file), { recursive: true });
  return new Map([...out.matchAll(/^v\((\w+)\) = (\S+)$/gim)].map((m) => [m[1]!.toLowerCase(), Number(m[2])]));
}

describe("the meter of the simulated bench against ngspice", () => {
  it.each(Object.keys(BENCHES))("%s", (name) => {
    const r = reasonOf(circuitOf(BENCHES[name]!(), catalogue));
    const asked = r.questions.flatMap((q) => (q.kind === "volt" ? [q] : []));
    const list = r.singles.filter((h, i) => (process.env.ALL || i % FEW === 0) && !r.works.hurts(h.state));
    let compared = 0;
    const wrong: string[] = [];
    for (const h of list) {
      const d = deck(r, h);
      const points = [...new Set(asked.flatMap((q) => [r.laid.place.get(q.a)!, r.laid.place.get(q.b)!]))];
      const V = run(d.text, points.map(d.node));
      for (const q of asked) {
        const [a, b] = [r.laid.place.get(q.a)!, r.laid.place.get(q.b)!];
        const here = r.shows(h, q);
        if (typeof here !== "number" || !d.clean.has(a) || !d.clean.has(b)) continue;
        const there = V.get(d.node(a))! - V.get(d.node(b))!;
        compared++;
        if (Math.abs(here - there) > Math.max(5e-3, 0.01 * Math.abs(there)))
          wrong.push(`${h.faults[0]?.id}: ${q.a} ${q.b} ${here.toFixed(3)} V here, ${there.toFixed(3)} V there`);
      }
    }
    expect(wrong).toEqual([]);
    expect(compared).toBeGreaterThan(5);
  });
});
