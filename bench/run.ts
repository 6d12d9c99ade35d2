/**
 * Speed of the core on this machine, printed as a table: medians of many runs. Ratios matter more than milliseconds.
 * `npm run bench`; the first-page weight is measured when a production build is there.
 */
import { execFileSync } from "node:child_process";
import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { rankBoards } from "../src/core/plan/advice";
import { assign, solve } from "../src/core/plan/assign";
import { shippedCatalogue } from "../src/core/parts/catalogue/shipped";
import { findings } from "../src/core/checks";
import { circuitOf } from "../src/core/circuit";
import { readProject, type Project } from "../src/core/project";
import { makeView } from "../src/workers/view";
import { catalogueRows } from "./catalogue";
import { handRows } from "./hands";
import { huntRows } from "./hunt";
import { latticeRows } from "./lattice";
import { ruleRows } from "./rules";
import { solverRows } from "./solver";
import { wireRows } from "./wires";
import { wiringRows } from "./wiring";

const catalogue = shippedCatalogue();
const root = path.resolve(import.meta.dirname, "..");

function demo(name: string): Project {
  const r = readProject(fs.readFileSync(path.join(root, `demo/${name}.lattice.json`), "utf8"), catalogue);
  if (!r.ok) throw new Error(name);
  return r.project;
}

function median(runs: number, work: () => unknown): { mid: number; worst: number } {
  for (let i = 0; i < 5; i++) work();
  const times = Array.from({ length: runs }, () => {
    const t = performance.now();
    work();
    return performance.now() - t;
  }).sort((a, b) => a - b);
  return { mid: times[runs >> 1]!, worst: times[runs - 1]! };
}
const row = (what: string, reach: string, got: string) => console.log(`${what.padEnd(58)} ${reach.padEnd(12)} ${got}`);
const ms = (r: { mid: number; worst: number }) => `${r.mid.toFixed(2)} ms (worst ${r.worst.toFixed(1)})`;

async function main() {
  row("what", "reach", "here");
  for (const [what, reach, got] of [...catalogueRows(), ...ruleRows()]) row(what, reach, got);
  for (const name of ["moss-terrarium", "rain-barrel", "beehive-scale"]) {
    const p = demo(name);
    // A copy each time, so that nothing is remembered.
    row(`${name}: edit to findings`, "< 16 ms", ms(median(60, () => findings(circuitOf({ ...p }, catalogue)))));
    row(`${name}: edit to the whole view`, "< 16 ms", ms(median(60, () => makeView({ ...p }, catalogue))));
    const open = { ...p, links: p.links.filter((l) => l.from.includes("USB") || l.to.includes("USB")) };
    row(`${name}: plan everything`, "< 10 ms", ms(median(60, () => assign({ ...open }, catalogue))));
    const { problems } = assign(p, catalogue);
    row(`${name}: the solver alone`, "", ms(median(60, () => solve(problems[0]!))));
    row(`${name}: every board tried`, "< 400 ms", ms(median(20, () => rankBoards({ ...p }, catalogue))));
  }
  await solverRows(row);
  huntRows(row, Number(process.env.HUNT ?? 200));
  await latticeRows(row);
  await handRows(row);
  await wiringRows(row);
  await wireRows(row);
  const out = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-bench-"));
  const t = performance.now();
  execFileSync(process.execPath, [
    path.join(root, "bin/lattice.mjs"),
    "plan",
    path.join(root, "demo/rain-barrel.lattice.json"),
    "--out",
    path.join(out, "p"),
  ]);
  row("command line, plan with all outputs, cold", "< 2 s", `${((performance.now() - t) / 1000).toFixed(2)} s`);
  const { weigh } = await import("./page-weight");
  for (const w of await weigh(3000))
    row(`script of ${w.page}, compressed`, "< 250 kB", `${w.first_kB.toFixed(0)} kB, then ${w.all_kB.toFixed(0)} kB`);
}
void main();
