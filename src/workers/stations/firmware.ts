import { trialOf, triable, type Act, type Control, type Trial, type TrialState } from "../../core/bench/trial";
import { circuitOf } from "../../core/circuit";
import { targetById, type FirmwareFile } from "../../core/firmware";
import { adopt, type Adopted } from "../../core/firmware/own/adopt";
import { does, type Does } from "../../core/firmware/does";
import { roomOf, type Room } from "../../core/firmware/memory/room";
import { rulesView, type RulesView } from "../../core/firmware/rules/view";
import { sleepView, type SleepView } from "../../core/firmware/sleep/view";
import type { Project } from "../../core/project";
import { catalogue, needFor } from "../loading";

/** The program that is being tried; one at a time. */
let trial: Trial | null = null;

/** Programs from the plan. */
export const firmwareApi = {
  async files(project: Project, target: string): Promise<FirmwareFile[]> {
    await needFor(project);
    const t = targetById(target);
    const c = circuitOf(project, catalogue);
    return t && !t.unfit(c) ? t.files(c) : [];
  },
  /** Own code that a file of a target holds as it was edited here; with problems nothing is taken. */
  async own(
    project: Project,
    target: string,
    path: string,
    text: string,
  ): Promise<Pick<Adopted, "edits" | "problems">> {
    await needFor(project);
    const { edits, problems } = adopt(circuitOf(project, catalogue), (t, p) =>
      t === target && p === path ? text : null,
    );
    return problems.length ? { edits: [], problems } : { edits, problems };
  },
  /** Boards that may sleep between readings, and what that means for their parts and cells. */
  async sleeps(project: Project): Promise<SleepView[]> {
    await needFor(project);
    return sleepView(circuitOf(project, catalogue));
  },
  /** What happens when, and of what such sentences can be made. */
  async rules(project: Project): Promise<RulesView> {
    await needFor(project);
    return rulesView(circuitOf(project, catalogue));
  },
  /** Boards whose starter can be tried here. */
  async triable(project: Project): Promise<string[]> {
    await needFor(project);
    return triable(circuitOf(project, catalogue)).map((b) => b.host);
  },
  /** Begins to try a board's starter: what can be done to its parts; null where none can be tried. */
  async trial(
    project: Project,
    host: string,
  ): Promise<{ controls: readonly Control[]; left: readonly string[] } | null> {
    await needFor(project);
    trial = trialOf(circuitOf(project, catalogue), host);
    return trial && { controls: trial.controls, left: trial.left };
  },
  /** Does something to its parts, then goes on until a time. */
  goOn(acts: readonly Act[], until: number): TrialState | null {
    for (const a of acts) trial?.act(a);
    return trial?.run(until) ?? null;
  },
  /** How much of each board's memory the programs of a target take, where that was measured. */
  async room(project: Project, target: string): Promise<Room[]> {
    await needFor(project);
    const c = circuitOf(project, catalogue);
    return c.netlist.expanded.hosts.flatMap((host) => roomOf(c, host, target) ?? []);
  },
  /** What the programs of a target do with every part. */
  async does(project: Project, target: string): Promise<Does[]> {
    await needFor(project);
    return does(circuitOf(project, catalogue), target);
  },
};
