import { describePart, readPart, type Part, type PartDescription, type PartResult } from "../../core/parts/catalogue";
import {
  boardDraft,
  buildPart,
  draftFrom,
  emptyDraft,
  OwnDraftSchema,
  readiness,
  readBoardPins,
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
  /** Pins from a text; of a board by the labels that a known board with the same chip has. */
  ownPins(text: string, board?: Part): PinList {
    return board?.board ? readBoardPins(text, board) : readPins(text);
  },

  /** A draft for the editor: blank, from an own part to change it, from any part to copy it, or a board with a known one's chip. */
  async ownDraft(from: { id: string; copy: boolean; bare?: boolean } | null, own: readonly Part[]): Promise<OwnDraft> {
    const part = from ? (await definitions([from.id], own))[0] : undefined;
    if (!part) return emptyDraft();
    return from!.bare && part.board ? boardDraft(part) : draftFrom(part, from!.copy);
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
