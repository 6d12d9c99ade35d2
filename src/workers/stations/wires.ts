import { circuitOf } from "../../core/circuit";
import { applyEdit, type BasicEdit, type Project } from "../../core/project";
import {
  actOf,
  between,
  consequences,
  handWires,
  pinMapText,
  readGiven,
  suggestPoints,
  takeGiven,
  type Consequences,
  type GivenRow,
  type HandWire,
  type Suggestion,
  type WireAsk,
} from "../../core/wires";
import { catalogue, need, needFor } from "../loading";
import { step, type Step } from "../step";

/** What an ask would bring, told before it is done; or why it can't be. */
export type Told = { ok: true; says: string; brings: Consequences } | { ok: false; why: string };

const load = async (project: Project, ask: WireAsk) => {
  await needFor(project);
  if (ask.do === "between") await need([ask.part, "discrete/resistor"]);
};
const applied = (project: Project, edits: readonly BasicEdit[]) =>
  edits.reduce((p, e) => applyEdit(p, e, catalogue), project);

/** Wires by hand: the table, points by their names, what an act would bring, and the act. */
export const wiresApi = {
  async wireTable(project: Project): Promise<HandWire[]> {
    await needFor(project);
    return handWires(circuitOf(project, catalogue));
  },

  async suggest(project: Project, text: string): Promise<Suggestion[]> {
    await needFor(project);
    return suggestPoints(circuitOf(project, catalogue), text, 8);
  },

  async tellWire(project: Project, ask: WireAsk): Promise<Told> {
    await load(project, ask);
    const a = actOf(project, catalogue, ask);
    return a.ok ? { ok: true, says: a.says, brings: consequences(project, a.edits, catalogue) } : a;
  },

  async doWire(project: Project, ask: WireAsk): Promise<Step | null> {
    await load(project, ask);
    const a = actOf(project, catalogue, ask);
    if (!a.ok) throw new Error(a.why);
    return step(applied(project, a.edits), `${ask.do}: ${a.says}`.slice(0, 280));
  },

  /** Lines of a program or a table that prescribe pins, matched with the project's needs, and what taking them over brings. */
  async tellGiven(
    project: Project,
    text: string,
    chosen: Record<string, string>,
  ): Promise<{ rows: GivenRow[]; brings: Consequences }> {
    await needFor(project);
    const { rows, edits } = takeGiven(project, catalogue, readGiven(text), chosen);
    return { rows, brings: between(project, applied(project, edits), catalogue) };
  },

  async takeGiven(project: Project, text: string, chosen: Record<string, string>): Promise<Step | null> {
    await needFor(project);
    const { rows, edits } = takeGiven(project, catalogue, readGiven(text), chosen);
    const served = rows.filter((r) => r.state === "served" || r.state === "there already").length;
    return step(applied(project, edits), `${served} given pins`);
  },

  async pinMap(project: Project): Promise<string> {
    await needFor(project);
    return pinMapText(circuitOf(project, catalogue));
  },
};
