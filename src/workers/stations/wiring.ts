import { toSvg, type Drawing } from "../../core/drawing";
import { layoutInProject, propose, type SizeId } from "../../core/build/breadboard";
import { rewire, type Rewire } from "../../core/build/compare";
import { loom, loomDrawing, type Loom } from "../../core/build/loom";
import { panelDrawing, panelOf, wallsOf, type Panel } from "../../core/build/panel";
import {
  plugBoard,
  plugDrawing,
  plugHostNames,
  plugSteps,
  type PlugBoard,
  type PlugStep,
} from "../../core/build/plugboard";
import { carrierPlans, solderBuild, type CarrierPlan, type SolderBuild } from "../../core/build/solder";
import { circuitOf } from "../../core/circuit";
import type { Project, Wall } from "../../core/project";
import { makeBreadboardView, placedAgain, type BreadboardView } from "../breadboard-view";
import { layOut } from "../layout";
import { catalogue, needFor } from "../loading";
import { step, type Step } from "../step";

/** A board that plugs onto a header, ready to be shown. */
export interface PlugView {
  hosts: { ref: string; name: string }[];
  board: PlugBoard;
  parts: Drawing;
  back: Drawing;
  steps: PlugStep[];
}

/** Wiring: drawings, placements, the box, what changes on a wired bench. */
export const wiringApi = {
  /** The loom drawing, laid out in a worker of its own. */
  async loom(project: Project): Promise<Loom> {
    await needFor(project);
    return loom(circuitOf(project, catalogue), layOut);
  },

  /** The walls of the box that something goes through, with their drawings; null without a box. */
  async panel(project: Project): Promise<{ panel: Panel; walls: { wall: Wall; drawing: Drawing }[] } | null> {
    await needFor(project);
    const panel = panelOf(circuitOf(project, catalogue));
    return panel && { panel, walls: wallsOf(panel).map((wall) => ({ wall, drawing: panelDrawing(panel, wall) })) };
  },

  /** The circuit soldered to keep. */
  async solder(project: Project): Promise<SolderBuild> {
    await needFor(project);
    return solderBuild(circuitOf(project, catalogue));
  },

  /** Boards to solder, hole by hole: the project's own placement, or the best one found. */
  async carriers(project: Project): Promise<CarrierPlan[]> {
    await needFor(project);
    const c = circuitOf(project, catalogue);
    return carrierPlans(c, layoutInProject(c) ?? propose(c));
  },

  /** The board that plugs onto a header, of the board with most wires or of `host`; null when there is none to plug onto. */
  async plug(project: Project, host?: string): Promise<PlugView | null> {
    await needFor(project);
    const c = circuitOf(project, catalogue);
    const board = plugBoard(c, host);
    return (
      board && {
        hosts: plugHostNames(c),
        board,
        parts: plugDrawing(board, "parts"),
        back: plugDrawing(board, "back"),
        steps: plugSteps(c, board),
      }
    );
  },

  /** What a bench wired after one version needs to be wired after another. */
  async compareWiring(before: Project, after: Project): Promise<Rewire> {
    await needFor(before);
    await needFor(after);
    return rewire(circuitOf(before, catalogue), circuitOf(after, catalogue));
  },

  /** The placement on breadboards: the project's own, or the best one found when it has none. */
  async breadboard(project: Project): Promise<BreadboardView> {
    await needFor(project);
    return makeBreadboardView(project, catalogue);
  },

  /** The best placement for these boards, with given parts held where they are. */
  async placeParts(project: Project, boards: SizeId[] | null, held: string[]): Promise<Step> {
    await needFor(project);
    return step(placedAgain(project, catalogue, boards, held), "place the parts on the breadboard");
  },

  async svg(project: Project, plain = false): Promise<string> {
    return toSvg(loomDrawing(await wiringApi.loom(project)), project.title, { plain });
  },
};
