/** How fast faults are found: time for the whole dictionary, measurements against the bound, and against two simpler ways. `npx tsx bench/finder.ts` */
import { performance } from "node:perf_hooks";
import { circuitOf } from "../src/core/circuit";
import { faultsOf } from "../src/core/bench/faults";
import { layOut } from "../src/core/bench/laid/laid";
import { checklist } from "../src/core/bench";
import {
  bound,
  experimentsOf,
  find,
  reasonOf,
  type Hypothesis,
  type Question,
  type Reason,
} from "../src/core/bench/reason";
import { labelOf } from "../src/core/bench/reason/likely";
import { BENCHES } from "../src/core/bench/reason/cases";
import { catalogue } from "../src/core/testing";
import { bigProject } from "./forty";

const round = (x: number) => x.toFixed(2).padStart(6);

/** How many questions of a list somebody asks in order before the first shows that something is wrong; all when none does. */
function inOrder(r: Reason, list: readonly Question[], h: Hypothesis): number {
  const none = r.singles[0]!;
  const at = list.findIndex((q) => labelOf(r.shows(h, q)) !== labelOf(r.shows(none, q)));
  return at < 0 ? list.length : at + 1;
}

console.log(
  "project                          wires  faults  first after  sure after   bound  first/bound  list in order  wire by wire",
);
for (const [name, project] of Object.entries(BENCHES)) {
  const c = circuitOf(project(), catalogue);
  const r = reasonOf(c);
  const none = r.signature(r.singles[0]!);
  const faults = r.singles.slice(1).filter((h) => r.signature(h) !== none);
  const list = checklist(c).flatMap((i) => i.q ?? []);
  const wires = r.laid.wires.flatMap((w): Question[] => (w.cable ? [] : [{ kind: "beep", a: w.a, b: w.b }]));
  const sums = { led: 0, sure: 0, list: 0, wires: 0, weight: 0 };
  for (const h of faults) {
    const f = find(r, h, { wrong: true });
    if (!f.first) console.log(`  not first: ${h.faults[0]!.id}`);
    sums.led += f.led * h.weight;
    sums.sure += f.steps * h.weight;
    sums.list += inOrder(r, list, h) * h.weight;
    sums.wires += inOrder(r, wires, h) * h.weight;
    sums.weight += h.weight;
  }
  const mean = (k: "led" | "sure" | "list" | "wires") => sums[k] / sums.weight;
  const b = bound(r, faults);
  console.log(
    `${name.padEnd(32)} ${String(r.laid.wires.length).padStart(5)}  ${String(faults.length).padStart(6)}  ${round(mean("led"))}       ${round(mean("sure"))}      ${round(b)}   ${round(mean("led") / b)}       ${round(mean("list"))}         ${round(mean("wires"))}`,
  );
}

// All single faults of a large build, simulated and ranked, from cold and warm.
for (const parts of [8, 14, 40]) {
  const times: number[] = [];
  const tried: number[] = [];
  let [wires, faults, questions] = [0, 0, 0];
  for (let k = 0; k < 6; k++) {
    const c = circuitOf(bigProject(parts), catalogue);
    void c.solved;
    const t = performance.now();
    const r = reasonOf(c);
    r.judge([{ q: r.questions[0]!, seen: "open" }], { wrong: true });
    times.push(performance.now() - t);
    // Experiments for somebody without a meter, after a bring-up in which one part is missing.
    const missing = r.questions.find((q) => q.kind === "part")!;
    const seen = r.questions.filter((q) => q.kind === "part").map((q) => ({ q, seen: q === missing ? "no" : "works" }));
    const judged = r.judge(seen, { wrong: true });
    const from = performance.now();
    // As if nothing could be destroyed: then there are the most of them.
    experimentsOf(r, { ...judged, danger: 0 });
    tried.push(performance.now() - from);
    wires = layOut(c).wires.length;
    faults = faultsOf(layOut(c)).length;
    questions = r.questions.length;
  }
  console.log(
    `${parts} parts, ${wires} wires: ${faults} faults by ${questions} questions, simulated and ranked in ${Math.round(times[0]!)} ms cold, ${Math.round(Math.min(...times.slice(1)))} ms warm; experiments in ${Math.round(Math.min(...tried))} ms`,
  );
}
