import { benchApi } from "./stations/bench";
import { courseApi } from "./stations/course";
import { captureApi } from "./stations/capture";
import { handoutApi } from "./stations/handout";
import { firmwareApi } from "./stations/firmware";
import { ideaApi } from "./stations/idea";
import { ownPartsApi } from "./stations/own-parts";
import { partsApi } from "./stations/parts";
import { patternsApi } from "./stations/patterns";
import { pinsApi } from "./stations/pins";
import { powerApi } from "./stations/power";
import { practiceApi } from "./stations/practice";
import { projectApi } from "./stations/project";
import { reviewApi } from "./stations/review";
import { wiringApi } from "./stations/wiring";
import { wiresApi } from "./stations/wires";

export type { Preview } from "./stations/project";
export type { LessonView } from "./stations/handout";
export type { PatternRow, PatternView, StartsWith } from "./stations/patterns";
export type { Proposal } from "./stations/idea";
export type { Found, ListChoice } from "./stations/parts";
export type { OwnPartCheck } from "./stations/own-parts";
export type { Told } from "./stations/wires";

/**
 * Everything that the interface asks of the core, one file a station. Runs in a worker; every call takes and returns plain
 * data.
 */
export const api = {
  ...projectApi,
  ...partsApi,
  ...ideaApi,
  ...patternsApi,
  ...ownPartsApi,
  ...pinsApi,
  ...powerApi,
  ...wiringApi,
  ...wiresApi,
  ...firmwareApi,
  ...benchApi,
  ...practiceApi,
  ...captureApi,
  ...handoutApi,
  ...courseApi,
  ...reviewApi,
};
export type CoreApi = typeof api;
