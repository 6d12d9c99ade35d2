import { createInterface } from "node:readline";
import { circuitOf, type Circuit } from "../core/circuit";
import { ask, isTold, observed, reasonOf, shown, type Observation } from "../core/bench/reason";
import { MODES, simulatedBench, type Mode } from "../core/bench/simulated/bench";
import {
  complaint,
  deal,
  isIt,
  LEVELS,
  levelsOf,
  replay,
  scoreOf,
  type Dealt,
  type LevelId,
} from "../core/bench/trainer/trainer";
import { seedOf } from "../core/bench/trainer/seed";
import { catalogue, EXIT, loadFile, print, printJson, Unusable } from "./io";

const HELP = `beep A B, ohm A B, volt A B   two probes, as in: volt M1.VCC M1.GND
run                          read the lines of the bring-up program
hint                         what tells most now (costs points)
suspects                     who is suspect by what was measured so far (a hint as well)
it is NAME                   name the fault, by the beginning of its name
faults WORD                  names of faults with this word
quit                         give up`;

interface Session {
  c: Circuit;
  dealt: Dealt;
  seen: Observation[];
  hints: number;
  wrong: number;
  began: number;
}

/** One line of the learner; true when it is over. */
function turn(s: Session, line: string): boolean {
  const r = reasonOf(s.c);
  const bench = simulatedBench(s.c, s.dealt.change);
  const [verb = "", a = "", b = ""] = line.trim().split(/\s+/);
  if ((MODES as readonly string[]).includes(verb)) {
    bench.power(verb === "volt");
    const m = bench.meter(verb as Mode, a, b);
    if (!m) print(`${verb} needs two pins of this plan, as in M1.VCC M1.GND`);
    else {
      print(m.text);
      s.seen.push({ q: m.q, seen: m.seen });
    }
  } else if (verb === "run") {
    const { lines, seen } = bench.bringUp();
    print(lines.length ? lines.join("\n") : "(nothing is printed)");
    s.seen.push(...seen);
  } else if (verb === "hint" || verb === "suspects") {
    s.hints++;
    const j = r.judge(s.seen, { wrong: true });
    if (verb === "hint") print(j.next ? ask(r.laid, j.next.q) : "Nothing more can be told: name it.");
    else
      for (const x of j.suspects.slice(0, 5))
        print(`${Math.round(x.share * 100)} %  ${x.faults.map((f) => f.id).join(" + ")}`);
  } else if (verb === "faults") {
    const word = line.trim().slice(7).toLowerCase();
    for (const h of r.singles
      .slice(1)
      .filter((x) => x.faults[0]!.id.toLowerCase().includes(word))
      .slice(0, 40))
      print(h.faults[0]!.id);
  } else if (verb === "it" && a === "is") {
    const name = line.trim().slice(6).trim();
    const fit = r.singles.slice(1).filter((h) => h.faults[0]!.id.startsWith(name));
    if (!name || !fit.length) print('no fault begins so; "faults" lists them');
    else if (fit.some((h) => isIt(s.c, s.dealt, h.faults[0]!.id)) && fit.length <= 3) return true;
    else {
      s.wrong++;
      print("That is not it.");
    }
  } else if (verb === "quit") return true;
  else print(HELP);
  return false;
}

function end(s: Session, found: boolean): number {
  const score = scoreOf(s.c, s.dealt, {
    measured: s.seen.filter((o) => !isTold(o.q)),
    hints: s.hints,
    wrong: s.wrong,
    minutes: (Date.now() - s.began) / 60_000,
    found,
  });
  print(`${score.says} ${score.points} points.`);
  for (const f of s.dealt.faults) print(`It was: ${f.says}. ${f.mend}`);
  for (const step of replay(s.c, s.seen))
    print(
      `  ${observed(step.o)}: ${step.before} to ${step.after} left${step.fell.length ? `; out: ${step.fell.join("; ")}` : ""}`,
    );
  return found ? EXIT.fine : EXIT.findings;
}

/** A fault is hidden in the simulated bench; the learner measures and names it. With `--key` the teacher reads what is hidden. */
export async function trainCommand(
  file: string,
  o: { seed?: string; level?: string; benches?: string; same?: boolean; key?: boolean; json?: boolean },
): Promise<number> {
  const c = circuitOf(loadFile(file), catalogue);
  const seed = Number(o.seed ?? 1);
  const level = (o.level ?? "continuity") as LevelId;
  const benches = Number(o.benches ?? 1);
  if (!Number.isInteger(seed) || seed < 0) throw new Unusable(`--seed ${o.seed}: a whole number from 0 up is needed`);
  if (!LEVELS.some((l) => l.id === level))
    throw new Unusable(`--level ${o.level}: levels are ${LEVELS.map((l) => l.id).join(", ")}`);
  if (!Number.isInteger(benches) || benches < 1 || benches > 60)
    throw new Unusable(`--benches ${o.benches}: a whole number from 1 to 60 is needed`);
  if (!levelsOf(c).includes(level))
    throw new Unusable(
      `${file}: this plan has nothing for the level ${level}; it has ${levelsOf(c).join(", ") || "none"}`,
    );
  const seeds = benches === 1 ? [seed] : Array.from({ length: benches }, (_, i) => (o.same ? seed : seedOf(seed, i)));
  const dealt = seeds.map((x) => deal(c, level, x)).filter((d) => d !== null);
  if (!dealt.length) throw new Unusable(`${file}: no two faults here are apart enough for this level`);
  if (o.key) {
    const key = dealt.map((d, i) => ({
      bench: i + 1,
      seed: d.seed,
      faults: d.faults.map((f) => f.says),
      mend: d.faults.map((f) => f.mend),
    }));
    if (o.json) printJson({ level, seed, key });
    else
      for (const k of key) print(`bench ${k.bench}, seed ${k.seed}: ${k.faults.join(", and: ")}. ${k.mend.join(" ")}`);
    return EXIT.fine;
  }
  const s: Session = { c, dealt: dealt[0]!, seen: [], hints: 0, wrong: 0, began: Date.now() };
  const level_ = LEVELS.find((l) => l.id === level)!;
  print(`${level_.name}: ${level_.says}. ${s.dealt.faults.length === 1 ? "One thing is" : "Two things are"} wrong.`);
  for (const line of complaint(c, s.dealt)) print(line);
  print(HELP);
  const r = reasonOf(c);
  s.seen = r.questions.flatMap((q): Observation[] => {
    // What was complained of is known.
    const a = q.kind === "part" || q.kind === "console" ? simulatedSeen(s, q) : null;
    return a === null ? [] : [{ q, seen: a }];
  });
  for await (const line of createInterface({ input: process.stdin, terminal: false }))
    if (line.trim() && turn(s, line)) return end(s, line.trim().startsWith("it "));
  return end(s, false);
}

const simulatedSeen = (s: Session, q: Observation["q"]): string | null => {
  const seen = simulatedBench(s.c, s.dealt.change)
    .bringUp()
    .seen.find((o) => JSON.stringify(o.q) === JSON.stringify(q));
  return seen === undefined ? null : String(shown(q, seen.seen) && seen.seen);
};
