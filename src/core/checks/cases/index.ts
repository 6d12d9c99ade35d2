/** Planted mistakes and sound projects, as data for the tests and for the handbook's examples. Not used by the product. */
import { breadboardCases } from "./breadboard";
import { busCases } from "./buses";
import { currentCases } from "./currents";
import { levelCases } from "./levels";
import { ownCases } from "./own";
import { pinCases } from "./pins";
import { powerCases } from "./power";
import { solvedCases } from "../rules/cases";

export { quiet } from "./quiet";
export type { Case } from "./build";
export const cases = [
  ...levelCases,
  ...pinCases,
  ...currentCases,
  ...busCases,
  ...powerCases,
  ...ownCases,
  ...breadboardCases,
  ...solvedCases,
];
