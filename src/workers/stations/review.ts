import { circuitOf } from "../../core/circuit";
import { codeOf, jsonOf, packPlan } from "../../core/share";
import { remarkAt, remarkPlaces, remarksOf, type RemarkView } from "../../core/review";
import type { Drawing } from "../../core/drawing";
import type { Project, RemarkAt } from "../../core/project";
import { catalogue, needFor } from "../loading";

/** Passing a plan on, and what others say about it. */
export const reviewApi = {
  async remarks(project: Project): Promise<RemarkView[]> {
    await needFor(project);
    return remarksOf(circuitOf(project, catalogue));
  },
  async remarkPlaces(project: Project): Promise<{ says: string; at: RemarkAt }[]> {
    await needFor(project);
    return remarkPlaces(circuitOf(project, catalogue));
  },
  /** What a place on a drawing is to a remark. */
  async remarkAt(project: Project, place: string): Promise<RemarkAt> {
    await needFor(project);
    return remarkAt(circuitOf(project, catalogue), place);
  },
  /** A plan as a line of letters, and its code where it fits. */
  packed(project: Project): { text: string; code: Drawing | null } {
    const text = packPlan(project);
    return { text, code: codeOf(text) };
  },
  /** A code that opens a page. */
  linkCode(url: string): Drawing | null {
    return codeOf(url, "M");
  },
  /** The project file in such a line, to be read like any other. */
  unpacked(text: string): ReturnType<typeof jsonOf> {
    return jsonOf(text);
  },
};
