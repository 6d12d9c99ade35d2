import { circuitOf } from "../../core/circuit";
import { targetById, type FirmwareFile } from "../../core/firmware";
import { does, type Does } from "../../core/firmware/does";
import type { Project } from "../../core/project";
import { catalogue, needFor } from "../loading";

/** Programs from the plan. */
export const firmwareApi = {
  async files(project: Project, target: string): Promise<FirmwareFile[]> {
    await needFor(project);
    const t = targetById(target);
    const c = circuitOf(project, catalogue);
    return t && !t.unfit(c) ? t.files(c) : [];
  },
  /** What the programs of a target do with every part. */
  async does(project: Project, target: string): Promise<Does[]> {
    await needFor(project);
    return does(circuitOf(project, catalogue), target);
  },
};
