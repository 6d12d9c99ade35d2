import { readFileSync, statSync } from "node:fs";
import { readConsole } from "../core/bench/console/read";
import { readReadings } from "../core/bench/readings/table";
import { ask, experimentsOf, grouped, observed, reasonOf, shown, type Observation } from "../core/bench/reason";
import { circuitOf } from "../core/circuit";
import { catalogue, EXIT, loadFile, note, print, printJson, Unusable } from "./io";

const MOST_BYTES = 100_000_000;
/** So many suspects are told. */
const TOLD = 5;
const MOST_EXPERIMENTS = 3;
const MOST_OUTCOMES = 3;

function textOf(file: string): string {
  try {
    if (statSync(file).size > MOST_BYTES) throw new Unusable(`${file}: larger than 100 MB; give the last part of it`);
    return readFileSync(file, "utf8");
  } catch (e) {
    if (e instanceof Unusable) throw e;
    throw new Unusable(`${file}: can't be read (${(e as NodeJS.ErrnoException).code})`);
  }
}

const percent = (share: number) => (share < 0.01 ? "under 1 %" : `${Math.round(share * 100)} %`);

/** Judges a build by what its program printed and what was measured: what is odd, who is suspect, what to measure next. */
export function judgeCommand(file: string, log: string, o: { readings?: string; json?: boolean }): number {
  const c = circuitOf(loadFile(file), catalogue);
  const text = textOf(log);
  const read = readConsole(c, text);
  const table = o.readings === undefined ? null : readReadings(c, textOf(o.readings));
  for (const p of table?.problems ?? []) note(`${o.readings}: ${p}`);
  // A log in which nothing stands is an observation too: the board is silent.
  const silence: Observation[] = text.trim()
    ? []
    : c.netlist.expanded.hosts.map((host) => ({ q: { kind: "console", host }, seen: "silent" }));
  const seen = [...silence, ...read.observations, ...(table?.observations ?? [])];
  const reason = reasonOf(c);
  const none = reason.singles[0]!;
  const odd = reason.odd(seen);
  const judged = reason.judge(seen, { wrong: odd.length > 0 });
  const groups = grouped(reason, judged).slice(0, TOLD);
  const experiments = odd.length ? experimentsOf(reason, judged, MOST_EXPERIMENTS) : [];
  const next = judged.next && {
    ...judged.next,
    ask: ask(reason.laid, judged.next.q),
    sound: shown(judged.next.q, judged.next.sound),
  };
  if (o.json)
    printJson({
      says: read.says,
      plan: read.plan,
      done: read.done,
      garbled: read.garbled,
      seen: seen.map((x) => ({ ...x.q, seen: x.seen })),
      odd: odd.map(observed),
      pairs: judged.pairs,
      suspects: groups.map((g) => ({
        faults: g.faults.map((f) => ({ id: f.id, says: f.says, mend: f.mend, at: f.at })),
        others: g.others.map((f) => f.says),
        share: Number(g.share.toFixed(4)),
        for: g.for.map(observed),
        against: g.against.map((x) => ({ seen: observed(x.o), expected: shown(x.o.q, x.shown) })),
      })),
      experiments,
      next,
      danger: Number(judged.danger.toFixed(3)),
    });
  else {
    for (const s of read.says) print(s);
    print(`${seen.length} observations, ${odd.length} not as in a sound build`);
    for (const x of odd) print(`  ${observed(x)} (sound: ${shown(x.q, reason.shows(none, x.q))})`);
    if (!odd.length) print("Nothing seen so far speaks against the build.");
    else {
      print(judged.pairs ? "No single fault explains this; the most likely two:" : "Suspects:");
      for (const g of groups) {
        const says = g.faults.length ? g.faults.map((f) => f.says).join(", and ") : "Nothing is wrong";
        print(`  ${percent(g.share).padStart(9)}  ${says}.`);
        for (const f of g.faults) print(`             ${f.mend}`);
        if (g.others.length) print(`             not to be told apart: ${g.others.map((f) => f.says).join("; ")}`);
      }
    }
    if (experiments.length) print("Without a meter, one change at a time:");
    for (const e of experiments) {
      print(`  ${e.does}`);
      for (const x of e.outcomes.slice(0, MOST_OUTCOMES))
        print(`    ${percent(x.share).padStart(9)}  ${x.shows}: ${x.mends ? "that was it" : x.means.join("; ")}`);
    }
    if (next) print(`Next: ${next.ask} A sound build: ${next.sound}.`);
    if (judged.danger > 0.05) print("Take the power away first: some of these can destroy parts.");
  }
  return odd.length ? EXIT.findings : EXIT.fine;
}
