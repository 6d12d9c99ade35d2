import { simulatedBench, type BenchState, type Mode, type SimulatedBench } from "../../core/bench/simulated/bench";
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
  type Score,
} from "../../core/bench/trainer/trainer";
import { seedOf } from "../../core/bench/trainer/seed";
import { ask, isTold, keyOf, observed, reasonOf, type Observation } from "../../core/bench/reason";
import type { Act, Control } from "../../core/bench/trial";
import { busWaves } from "../../core/bench/captures/bus-waves";
import { writeVcd } from "../../core/bench/captures/write-vcd";
import { circuitOf, type Circuit } from "../../core/circuit";
import { pointOr } from "../../core/wires";
import type { Project } from "../../core/project";
import { catalogue, needFor } from "../loading";

/** The bench that is being worked at; one at a time. */
interface Session {
  c: Circuit;
  bench: SimulatedBench;
  dealt: Dealt | null;
  seen: Observation[];
  hints: number;
  wrong: number;
  began: number;
}
let now: Session | null = null;

export interface PracticeStart {
  controls: readonly Control[];
  left: readonly string[];
  without: string | null;
  wires: { i: number; says: string }[];
  complaint: string[];
  /** Everything that may be wrong, for naming it. */
  faults: { id: string; says: string }[];
  hidden: number;
}
export interface PracticeEnd {
  score: Score;
  truth: { says: string; mend: string; at: readonly string[] }[];
  replay: { seen: string; before: number; after: number; fell: string[] }[];
  hints: number;
  wrong: number;
  minutes: number;
}
export type MeterAnswer = { ok: true; text: string; from: string; to: string } | { ok: false; says: string };

const record = (s: Session, list: readonly Observation[]) => void s.seen.push(...list);

/** The simulated bench, with a hidden fault or without. */
export const practiceApi = {
  /** Levels that this plan has faults for. */
  async practiceLevels(project: Project): Promise<{ id: LevelId; name: string; says: string }[]> {
    await needFor(project);
    const there = levelsOf(circuitOf(project, catalogue));
    return LEVELS.filter((l) => there.includes(l.id)).map(({ id, name, says }) => ({ id, name, says }));
  },
  /** Lays the bench out; `level` null: as planned, nothing hidden. Null where the level has nothing here. */
  async practice(project: Project, level: LevelId | null, seed: number): Promise<PracticeStart | null> {
    await needFor(project);
    const c = circuitOf(project, catalogue);
    const dealt = level === null ? null : deal(c, level, seed);
    if (level !== null && !dealt) return null;
    const bench = simulatedBench(c, dealt?.change ?? {});
    const r = reasonOf(c);
    now = { c, bench, dealt, seen: [], hints: 0, wrong: 0, began: Date.now() };
    // What is complained of is known from the start.
    if (dealt)
      record(
        now,
        bench.bringUp().seen.filter((o) => o.q.kind === "part" || o.q.kind === "console"),
      );
    return {
      controls: bench.controls,
      left: bench.left,
      without: bench.without,
      wires: r.laid.wires.map((w) => ({ i: w.i, says: `${w.a} to ${w.b}` })),
      complaint: dealt ? complaint(c, dealt) : [],
      faults: dealt ? r.singles.slice(1).map((h) => ({ id: h.faults[0]!.id, says: h.faults[0]!.says })) : [],
      hidden: dealt?.faults.length ?? 0,
    };
  },
  /** Does something on the bench, then goes on until a time, milliseconds. */
  practiceGo(acts: readonly Act[], powered: boolean, pulled: readonly number[], until: number): BenchState | null {
    if (!now) return null;
    now.bench.power(powered);
    for (const w of reasonOf(now.c).laid.wires) now.bench.pull(w.i, pulled.includes(w.i));
    for (const a of acts) now.bench.act(a);
    return now.bench.run(until);
  },
  /** Two probes: what the meter shows. */
  practiceMeter(mode: Mode, a: string, b: string, powered: boolean): MeterAnswer {
    if (!now) return { ok: false, says: "the bench is not laid out" };
    const [x, y] = [pointOr(now.c, a), pointOr(now.c, b)];
    if (!x.ok) return { ok: false, says: x.why };
    if (!y.ok) return { ok: false, says: y.why };
    now.bench.power(powered);
    const m = now.bench.meter(mode, x.end, y.end);
    if (!m) return { ok: false, says: `${x.end} and ${y.end}: probes need two pins` };
    // A meter on ohms under power tells nothing that counts.
    if (mode === "volt" ? powered : !powered) record(now, [{ q: m.q, seen: m.seen }]);
    return { ok: true, text: m.text, from: x.end, to: y.end };
  },
  /** The lines of the bring-up program on this bench. */
  practiceBringUp(powered: boolean): readonly string[] {
    if (!now) return [];
    now.bench.power(powered);
    const { lines, seen } = now.bench.bringUp();
    if (powered) record(now, seen);
    return lines;
  },
  /** What tells most now; it costs points. */
  practiceHint(): string {
    if (!now?.dealt) return "";
    now.hints++;
    const r = reasonOf(now.c);
    const j = r.judge(now.seen, { wrong: true });
    return j.next
      ? ask(r.laid, j.next.q)
      : `Nothing more can be told by measuring: ${j.suspects[0]?.faults.map((f) => f.says).join(", and ") ?? ""}.`;
  },
  /** Whether this is it; then, or when given up, the whole story. */
  practiceName(id: string | null): { right: boolean; end: PracticeEnd | null } {
    if (!now?.dealt) return { right: false, end: null };
    const right = id !== null && isIt(now.c, now.dealt, id);
    if (!right && id !== null) {
      now.wrong++;
      return { right, end: null };
    }
    const minutes = (Date.now() - now.began) / 60_000;
    const measured = [...new Map(now.seen.filter((o) => !isTold(o.q)).map((o) => [keyOf(o.q), o])).values()];
    const tries = { measured, hints: now.hints, wrong: now.wrong, minutes, found: right };
    return {
      right,
      end: {
        score: scoreOf(now.c, now.dealt, tries),
        truth: now.dealt.faults.map((f) => ({ says: f.says, mend: f.mend, at: f.at })),
        replay: replay(now.c, now.seen).map((s) => ({ ...s, seen: observed(s.o), o: undefined })),
        hints: now.hints,
        wrong: now.wrong,
        minutes,
      },
    };
  },
  /** What is hidden at every bench of a set, for the teacher. */
  async practiceKey(
    project: Project,
    level: LevelId,
    seed: number,
    benches: number,
    same: boolean,
  ): Promise<{ bench: number; seed: number; says: string[]; mend: string[] }[]> {
    await needFor(project);
    const c = circuitOf(project, catalogue);
    return Array.from({ length: benches }, (_, i) => i).flatMap((i) => {
      const own = same ? seed : seedOf(seed, i);
      const d = deal(c, level, own);
      return d
        ? [{ bench: i + 1, seed: own, says: d.faults.map((f) => f.says), mend: d.faults.map((f) => f.mend) }]
        : [];
    });
  },
  /** What the pins did, as a value change dump. */
  practiceVcd(until: number): string {
    return now ? writeVcd(now.c.project.title, now.bench.driven, until, busWaves(now.c, now.bench.messages)) : "";
  },
};
