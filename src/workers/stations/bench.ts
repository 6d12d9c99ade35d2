import { judgeEntry, type CheckItem } from "../../core/bench";
import { readConsole } from "../../core/bench/console/read";
import { logRows, type LogRow } from "../../core/bench/station/log";
import { probesOf, type ProbePart } from "../../core/bench/station/probes";
import { benchView, mended, ticksOf, type BenchView } from "../../core/bench/station/view";
import { circuitOf } from "../../core/circuit";
import { benchLogCsv } from "../../core/formats/bench-log";
import { fingerprint, type BasicEdit, type Project } from "../../core/project";
import { catalogue, needFor } from "../loading";

export interface ConsoleTold {
  says: readonly string[];
  /** Lines of the program, newest last. */
  lines: readonly { ref: string; says: string | null; text: string }[];
  edits: BasicEdit[];
  done: boolean;
}

/** So many of the program's lines are shown. */
const MOST_LINES = 200;

/** Readings at the bench, what they come to, and what is on record. */
export const benchApi = {
  /** Judges a meter reading as typed. */
  reading(project: Project, item: CheckItem, text: string): { ok: boolean; says: string } {
    const { ok, says } = judgeEntry(item, text, fingerprint(project));
    return { ok, says };
  },
  /** Where the probes of a check go. */
  async probes(project: Project, from: string, to: string): Promise<ProbePart[]> {
    await needFor(project);
    return probesOf(circuitOf(project, catalogue), from, to);
  },
  /** What is odd, who is suspect, what to measure next. */
  async bench(project: Project): Promise<BenchView> {
    await needFor(project);
    return benchView(circuitOf(project, catalogue));
  },
  /** What is asked again, and what is put on record, once a fault is mended. */
  async mended(project: Project, id: string, at: string): Promise<BasicEdit[]> {
    await needFor(project);
    return mended(circuitOf(project, catalogue), id, at);
  },
  /** Reads a console's text: what it says, and the readings that come of it. */
  async console(project: Project, text: string, at: string): Promise<ConsoleTold> {
    await needFor(project);
    const c = circuitOf(project, catalogue);
    const read = readConsole(c, text);
    return {
      says: read.says,
      lines: read.lines.slice(-MOST_LINES).map(({ ref, says, text: t }) => ({ ref, says, text: t })),
      edits: ticksOf(c, read.observations, at),
      done: read.done,
    };
  },
  /** Every reading on record, newest first. */
  async benchLog(project: Project): Promise<LogRow[]> {
    await needFor(project);
    return logRows(circuitOf(project, catalogue));
  },
  async benchLogCsv(project: Project): Promise<string> {
    await needFor(project);
    return benchLogCsv(circuitOf(project, catalogue));
  },
};
