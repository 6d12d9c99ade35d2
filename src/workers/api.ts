import { benchApi } from "./stations/bench";
import { captureApi } from "./stations/capture";
import { firmwareApi } from "./stations/firmware";
import { ideaApi } from "./stations/idea";
import { ownPartsApi } from "./stations/own-parts";
import { partsApi } from "./stations/parts";
import { pinsApi } from "./stations/pins";
import { powerApi } from "./stations/power";
import { practiceApi } from "./stations/practice";
import { projectApi } from "./stations/project";
import { wiringApi } from "./stations/wiring";
import { wiresApi } from "./stations/wires";

export type { Preview } from "./stations/project";
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
  ...ownPartsApi,
  ...pinsApi,
  ...powerApi,
  ...wiringApi,
  ...wiresApi,
  ...firmwareApi,
  ...benchApi,
  ...practiceApi,
  ...captureApi,
};
export type CoreApi = typeof api;
