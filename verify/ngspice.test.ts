import { execFileSync } from "node:child_process";
import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { circuitOf } from "../src/core/circuit";
import { islandsOf } from "../src/core/circuit/solve/islands";
import { modelOf, ZERO } from "../src/core/circuit/solve/model";
import { statesOf } from "../src/core/circuit/solve/states";
import { cases } from "../src/core/checks/cases";
import { loadProject, type Project } from "../src/core/project";
import { catalogue } from "../src/core/testing";
import { BASE_OHM, LEAK_S, nodesOf, SAT_OHM, type Element, type Network } from "../src/core/circuit/solve/network";
import { LOOSE_OHM, prepare, solveAt } from "../src/core/circuit/solve/point";
import { randomNetwork } from "../src/core/circuit/solve/random";

/** Every element as an expression of the same data; zero-volt sources measure the currents. */
function line(e: Element, i: number): string[] {
  const n = (x: string) => (x === "gnd" ? "0" : x);
  const leak = LEAK_S.toExponential();
  switch (e.kind) {
    case "resistor":
      return [`R${i} ${n(e.a)} m${i} ${e.ohm.typ}`, `VM${i} m${i} ${n(e.b)} 0`];
    case "diode": {
      const v = `V(${n(e.a)},m${i})`;
      const [Vf, knee] = [e.Vf.typ, e.Vf.typ * e.knee];
      return [
        `B${i} ${n(e.a)} m${i} I=(uramp(${v}-${knee})-uramp(${v}-${Vf}))/${e.knee_ohm}+uramp(${v}-${Vf})/${e.ohm}+${leak}*${v}`,
        `VM${i} m${i} ${n(e.b)} 0`,
      ];
    }
    case "bjt": {
      const [hi, lo] = e.npn ? [n(e.b), n(e.e)] : [n(e.e), n(e.b)];
      const [c, em] = e.npn ? [n(e.c), n(e.e)] : [n(e.e), n(e.c)];
      const ib = `uramp(V(${hi},${lo})-${e.Vbe.typ})/${BASE_OHM}`;
      return [
        `BB${i} ${hi} ${lo} I=${ib}+${leak}*V(${hi},${lo})`,
        `B${i} m${i} ${em} I=uramp(min(${e.gain.typ}*${ib},(V(${c},${em})-${e.sat_V})/${SAT_OHM}))+${leak}*V(${c},${em})`,
        `VM${i} ${c} m${i} 0`,
      ];
    }
    case "fet": {
      const [hi, lo] = e.n ? [n(e.g), n(e.s)] : [n(e.s), n(e.g)];
      const [d, s] = e.n ? [n(e.d), n(e.s)] : [n(e.s), n(e.d)];
      const gm = 1 / e.ohm / Math.max(e.full_V - e.Vth.typ, 0.1);
      return [
        `B${i} m${i} ${s} I=V(${hi},${lo})>${e.Vth.typ} ? min(${gm}*(V(${hi},${lo})-${e.Vth.typ}),V(${d},${s})/${e.ohm}) : ${leak}*V(${d},${s})`,
        `VM${i} ${d} m${i} 0`,
      ];
    }
  }
}

/** Runs a deck; volts by node and amperes by element, or null when that solver finds no point. */
function spice(net: Network): { V: Map<string, number>; I: number[] } | null {
  const free = [...new Set(net.elements.flatMap(nodesOf))].filter((x) => !net.held.has(x));
  const used = [...net.held].filter(([k]) => k !== "gnd");
  const deck = [
    "* random circuit",
    ...used.map(([k, s]) => `V_${k} ${k} 0 ${s.typ}`),
    ...free.map((x) => `RL_${x} ${x} 0 ${1 / LEAK_S}`),
    ...net.elements.flatMap(line),
    ".options gmin=1e-15 reltol=1e-5 abstol=1e-13 itl1=500",
    ".control",
    "op",
    ...free.map((x) => `print V(${x})`),
    ...net.elements.map((_, i) => `print I(VM${i})`),
    ".endc",
    ".end",
  ].join("\n");
  const file = path.join(fs.mkdtempSync(path.join(os.tmpdir(), "deck-")), "deck.cir");
  fs.writeFileSync(file, deck);
  let text = "";
  try {
    text = execFileSync("ngspice", ["-b", file], {
      encoding: "utf8",
      timeout: 20_000,
      stdio: ["ignore", "pipe", "pipe"],
    });
  } catch (e) {
    text = String((e as { stdout?: string }).stdout ?? "");
  }
  fs.rmSync(path.dirname(file), { recursive: true });
  const number = (name: string) => {
    const m = new RegExp(`^${name.replace(/[()]/g, "\\$&")} = (\\S+)$`, "im").exec(text);
    return m ? Number(m[1]) : NaN;
  };
  const V = new Map(free.map((x) => [x, number(`v(${x})`)]));
  const I = net.elements.map((_, i) => number(`i(vm${i})`));
  return [...V.values(), ...I].some(Number.isNaN) ? null : { V, I };
}

/** What differs between two solutions beyond 1 % or 5 mV, 2 % or 10 µA. */
function differences(
  net: Network,
  here: ReturnType<typeof solveAt>,
  there: NonNullable<ReturnType<typeof spice>>,
): string[] {
  // Where only leaks flow, a node stands anywhere between what its diodes let through.
  const fed = (x: string) => net.elements.some((e) => nodesOf(e).includes(x) && Math.abs(here.amps(e)) > 1e-9);
  const sure = (x: string) => (fed(x) || here.impedance(x) < STIFF_OHM) && here.impedance(x) < LOOSE_OHM;
  const volts = [...there.V].flatMap(([x, v]) =>
    sure(x) && Math.abs(here.volts(x) - v) > Math.max(5e-3, Math.abs(v) * 0.01)
      ? [`${x} ${here.volts(x)} V, there ${v} V`]
      : [],
  );
  const amps = net.elements.flatMap((e, i) => {
    // A current is measured where it comes in: the emitter or source of the mirrored kinds.
    const flip = (e.kind === "bjt" && !e.npn) || (e.kind === "fet" && !e.n);
    const [mine, other] = [flip ? -here.amps(e) : here.amps(e), there.I[i]!];
    return Math.abs(mine - other) > Math.max(1e-5, Math.abs(other) * 0.02)
      ? [`${e.kind} ${e.id} ${mine} A, there ${other} A`]
      : [];
  });
  return [...(here.settled ? [] : ["not settled"]), ...volts, ...amps];
}

/** Names that the other simulator takes: letters, digits and underscores. */
function plainNames(net: Network): Network {
  const name = (x: string) => (x === ZERO ? "gnd" : `x${x.replace(/[^A-Za-z0-9]/g, "_")}`);
  const held = new Map([...net.held].map(([k, s]) => [name(k), s]));
  const elements = net.elements.map((e): Element => {
    switch (e.kind) {
      case "bjt":
        return { ...e, b: name(e.b), c: name(e.c), e: name(e.e) };
      case "fet":
        return { ...e, g: name(e.g), d: name(e.d), s: name(e.s) };
      default:
        return { ...e, a: name(e.a), b: name(e.b) };
    }
  });
  return { elements, held };
}

/** Projects with something to solve: the demos, and planted mistakes, sound and unsound. */
const projects = (): [string, Project][] => {
  const demos = fs.readdirSync("demo").map((f): [string, Project] => {
    const r = loadProject(JSON.parse(fs.readFileSync(path.join("demo", f), "utf8")), catalogue);
    if (!r.ok) throw new Error(f);
    return [f, r.project];
  });
  const planted = cases
    .filter((c) => /^(level|current|led|load|contact|adc|part|power)\./.test(c.rule))
    .map((c, i): [string, Project] => [`${c.rule} ${i}`, i % 2 ? c.near() : c.bad()]);
  return [...demos, ...planted.filter((_, i) => i % 3 !== 1)];
};

const LEAST = 500;
/** Joined so well to something held that even without a current its voltage is sure. */
const STIFF_OHM = 0.1;

describe("against an independent circuit simulator", () => {
  it(`finds the same volts (1 % or 5 mV) and amperes (2 % or 10 µA) in ${LEAST} random circuits`, () => {
    let done = 0;
    let lost = 0;
    const wrong: string[] = [];
    for (let seed = 1; done < LEAST && seed < 900; seed++) {
      const net = randomNetwork(seed);
      const p = prepare(net);
      const here = solveAt(p, new Map());
      // What nothing holds has no voltage to compare, and two rails on one contact no sensible one.
      if (!p.index.size || p.floating.size) continue;
      const there = spice(net);
      if (!there) {
        lost++;
        continue;
      }
      done++;
      wrong.push(...differences(net, here, there).map((d) => `seed ${seed}: ${d}`));
    }
    expect(wrong.slice(0, 10)).toEqual([]);
    expect(done).toBe(LEAST);
    // That solver gives up on a few sharp-edged circuits.
    expect(lost).toBeLessThan(done * 0.2);
  });

  it("finds the same in the islands of all demos and of planted mistakes, in their states", () => {
    let done = 0;
    const wrong: string[] = [];
    for (const [name, project] of projects()) {
      const c = circuitOf(project, catalogue);
      const { scene } = c.solved;
      for (const island of islandsOf(c.netlist, scene.heldNets, scene.feeds)) {
        if (island.elements.length < 2) continue;
        for (const state of statesOf(scene, island).slice(0, 3)) {
          const net = plainNames(modelOf(scene, island, state).network);
          const p = prepare(net);
          if (!p.index.size || p.floating.size) continue;
          const there = spice(net);
          if (!there) continue;
          done++;
          wrong.push(...differences(net, solveAt(p, new Map()), there).map((d) => `${name}: ${d}`));
        }
      }
    }
    expect(wrong.slice(0, 10)).toEqual([]);
    expect(done).toBeGreaterThan(60);
  });
});
