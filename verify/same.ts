import { expect } from "vitest";
import { stageOf } from "../src/core/bench/stage";
import type { Circuit } from "../src/core/circuit";
import { DEVICES } from "../src/core/firmware/devices";
import { driverParts } from "../src/core/firmware/pins";
import { programOf, type Tried } from "../src/core/firmware/sim";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { MODELS } from "../src/core/bench/models";
import type { BusPart } from "../src/core/bench/models/types";
import { findPin } from "../src/core/parts/catalogue";
import { compileSketch, simulateWith } from "./avr/toolchain";
import { runProgram } from "./micropython/run";
import { busOnTwoWires, linesOf, wirePart } from "./parts";
import { Lines } from "./parts/lines";
import { together } from "./parts/together";

/** Presses of the first contact, ms: from when, until when. */
export const PRESSES = [
  [1500, 1900],
  [2600, 2700],
  [4200, 5100],
];
export const SECONDS = 8;

/** What the interpreter says and does. */
export function bySim(c: Circuit, target: Tried) {
  const stage = stageOf(c, "B1", target);
  const levels = new Map<string, number[]>();
  const p = programOf(c, "B1", target, {
    ...stage,
    drive(ref, pin, level, now) {
      const list = levels.get(ref) ?? [];
      if ((list.at(-1) ?? 0) !== level) levels.set(ref, [...list, level]);
      stage.drive(ref, pin, level, now);
    },
  });
  for (const [from, to] of PRESSES) {
    p.run(from!);
    stage.press("SW1", true);
    p.run(to!);
    stage.press("SW1", false);
  }
  p.run(SECONDS * 1000);
  return { lines: p.said.map((s) => s.line), levels, p };
}

/** The presses of a contact for the simulator; none where there is no contact. */
export const pressesOf = (go: string | undefined, port: (hostPin: string) => string): string[] =>
  go
    ? [
        `hold:${port(go)}:1`,
        ...PRESSES.flatMap(([from, to]) => [`later:${port(go)}:${from}:0`, `later:${port(go)}:${to}:1`]),
      ]
    : [];

/** Lines that stand still: the last four seconds, when everything has been read, and what was told at a press. */
const steady = (lines: readonly string[]) =>
  lines.filter((l) => / pressed$/.test(l) || (/running [4-7] s$/.test(l) && !/ pressed/.test(l)));

/** All parts of a board that hang on wires or on a bus, with their models. */
export function models(c: Circuit, target: string) {
  // A bare chip's program times its buses by itself.
  const soft = target === "avr-c";
  let on = "";
  const parts = driverParts(c, "B1", target, (b) => b);
  const wires = new Map<string, NonNullable<ReturnType<typeof wirePart>>>();
  const bus = new Map<number, ReturnType<(typeof MODELS)[number]["make"]>>();
  for (const p of parts) {
    const [kind, model] = [DEVICES.find((d) => d.id === p.inst.part.id), MODELS.find((m) => m.part === p.inst.part.id)];
    // What hangs on another part is heard and told there.
    if (!kind || !model || p.through) continue;
    const part = model.make(model.worlds[0]!, {
      chain: p.chain,
      options: p.options,
      ...(p.outs !== undefined && { outs: p.outs, rests: p.rests ?? 0 }),
      ...(p.pulsed && { pulsed: true }),
    });
    const g = c.netlist.instance(p.inst.ref)!.part.groups.find((x) => x.kind === "i2c");
    if (p.address) bus.set(Number(p.address), part);
    // One of them stands for all on those two pins.
    if (p.address && g && soft) {
      if (!on) wires.set((on = p.inst.ref), busOnTwoWires(bus, g.pins.sda!, g.pins.scl!));
      continue;
    }
    const w = wirePart(c, p.inst.ref, kind.of(p), part, p.chain);
    if (w) wires.set(p.inst.ref, w);
  }
  return { bus, wires };
}

/** Files of one board, where a plan has several: each has a folder of its own. */
export const filesOf = (c: Circuit, files: readonly { path: string; text: string }[], host = "B1") =>
  c.netlist.expanded.hosts.length < 2
    ? files
    : files.filter((f) => f.path.startsWith(`${host}/`)).map((f) => ({ ...f, path: f.path.slice(host.length + 1) }));

/** Runs the starter of a plan in the MicroPython port, the first contact pressed now and then. `serial`: what is on its port. */
export async function runInPython(c: Circuit, { bus, wires }: ReturnType<typeof models>, serial?: BusPart) {
  const board = c.netlist.instance("B1")!.part;
  const gpio = (hostPin: string) => findPin(board, hostPin)!.gpio!;
  const at = new Map(
    [...wires.keys()].flatMap((ref) => [...linesOf(c, ref)].map(([l, pin]) => [gpio(pin), `${ref}.${l}`] as const)),
  );
  const go = linesOf(c, "SW1").get("1");
  const presses = PRESSES.flatMap(([from, to]) => [`(${from}, 0)`, `(${to}, 1)`]).reverse();
  const world = `clock.END[0] = ${SECONDS * 1000}\n${go ? `machine.LEVELS_AT[${gpio(go)}] = [${presses.join(", ")}, (0, 1)]` : ""}`;
  const all = together(wires);
  const part = serial ?? { write: () => true, read: () => null };
  const lines = wires.size || serial ? { lines: new Lines(all), part, at } : undefined;
  return runProgram([...filesOf(c, micropython.files(c))], "main.py", world, bus, lines);
}

/** Compares what the interpreter says and does with what the MicroPython program does, run by the MicroPython port. */
export async function sameInPython(c: Circuit): Promise<void> {
  const sim = bySim(c, "micropython");
  const r = await runInPython(c, models(c, "micropython"));
  expect(steady(r.lines)).toEqual(steady(sim.lines));
  expect(steady(sim.lines).length).toBeGreaterThanOrEqual(linesOf(c, "SW1").size ? 6 : 4);
  for (const ref of ["LED1", "LED2"].filter((k) => linesOf(c, k).size)) {
    const pin = findPin(c.netlist.instance("B1")!.part, linesOf(c, ref).get("A")!)!.gpio!;
    const levels = r.log.filter((e) => e[0] === "toggle" && e[1] === pin).map((e) => e[2]);
    const wanted = sim.levels.get(ref) ?? [];
    // What comes at the very end of the time may be seen or not.
    const n = Math.min(8, levels.length, wanted.length);
    expect(levels.slice(0, n), ref).toEqual(wanted.slice(0, n));
    expect(Math.abs(levels.length - wanted.length), ref).toBeLessThanOrEqual(1);
  }
}

/** The same with the compiled sketch in simavr. `exe`: the bench program, built once. */
export async function sameInSketch(c: Circuit, name: string, exe: string): Promise<void> {
  const sim = bySim(c, "sketch");
  const { bus, wires } = models(c, "sketch");
  const board = c.netlist.instance("B1")!.part;
  const port = (hostPin: string) => findPin(board, hostPin)!.names!["avr-c"]!;
  const at = new Map(
    [...wires.keys()].flatMap((ref) => [...linesOf(c, ref)].map(([l, pin]) => [`${ref}.${l}`, pin] as const)),
  );
  const { elf } = compileSketch(`same-${name}`, sketch.files(c), "starter");
  const go = linesOf(c, "SW1").get("1");
  const events = pressesOf(go, port);
  const lines = wires.size ? { part: together(wires), at } : undefined;
  const r = await simulateWith(exe, elf, SECONDS, bus, undefined, lines, events);
  expect(steady(r.lines)).toEqual(steady(sim.lines));
  for (const [ref, list] of sim.levels) {
    if (!/^LED/.test(ref)) continue;
    // Each pin is first driven at all.
    const n = r.toggles.get(port(linesOf(c, ref).get("A")!))!;
    expect(Math.abs(n - 1 - list.length), `${ref}: ${n} changes, not ${list.length}`).toBeLessThanOrEqual(1);
  }
}
