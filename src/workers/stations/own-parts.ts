import { describePart, readPart, type Part, type PartDescription, type PartResult } from "../../core/parts/catalogue";
import {
  buildPart,
  draftFrom,
  emptyDraft,
  OwnDraftSchema,
  readiness,
  readPins,
  type DraftProblem,
  type OwnDraft,
  type PinList,
  type Readiness,
} from "../../core/parts/own";
import { summaries } from "../loading";
import { definitions } from "./parts";

export interface OwnPartCheck {
  part: Part | null;
  problems: DraftProblem[];
  ready: Readiness[];
  description: PartDescription | null;
}

/** The editor of own parts. */
export const ownPartsApi = {
  ownPins(text: string): PinList {
    return readPins(text);
  },

  /** A draft for the editor: blank, from an own part to change it, or from any part to copy it. */
  async ownDraft(from: { id: string; copy: boolean } | null, own: readonly Part[]): Promise<OwnDraft> {
    const part = from ? (await definitions([from.id], own))[0] : undefined;
    return part ? draftFrom(part, from!.copy) : emptyDraft();
  },

  /** What the draft makes, what is wrong with it, and what can be judged with it. */
  async ownCheck(draft: unknown): Promise<OwnPartCheck> {
    const parsed = OwnDraftSchema.safeParse(draft);
    if (!parsed.success)
      return {
        part: null,
        problems: parsed.error.issues.map((i) => ({ field: i.path.join("/"), message: i.message })),
        ready: [],
        description: null,
      };
    const { part: made, problems } = buildPart(parsed.data);
    // A new part must not hide a shipped one that happens to be called the same.
    const shipped = made && !parsed.data.id && (await summaries()).some((s) => s.id === made.id);
    const part = made && shipped ? { ...made, id: `${made.id.slice(0, 36)}-own` } : made;
    return { part, problems, ready: part ? readiness(part) : [], description: part ? describePart(part) : null };
  },

  readPart(text: string): PartResult {
    return readPart(text);
  },
};
