/** The cases of the rules in this folder: each in a file beside its rule. Not used by the product. */
import type { Case } from "../cases/build";
import { contactRatingCases } from "./contact-rating.cases";
import { commonModeCases } from "./level-common-mode.cases";
import { overdriveAnyCases } from "./level-overdrive-any.cases";
import { slowCases } from "./level-slow.cases";
import { driverLossCases } from "./load-driver-loss.cases";
import { contentionRailCases } from "./net-contention-rail.cases";
import { openInputCases } from "./net-open-input.cases";
import { stuckCases } from "./net-stuck.cases";
import { busSplitCases } from "./pin-bus-split.cases";
import { batteryNoteCases } from "./notes.cases";
import { partRatingCases } from "./part-rating.cases";
import { arrivesCases } from "./power-arrives.cases";
import { inrushCases } from "./power-inrush.cases";
import { mainsCases } from "./power-mains.cases";
import { noReturnCases } from "./power-no-return.cases";
import { returnPathCases } from "./power-return-path.cases";
import { shortByContactCases } from "./power-short-by-contact.cases";
import { twoRegulatorsCases } from "./power-two-regulators.cases";
import { switchedGroundCases } from "./switched-ground.cases";

export const solvedCases: Case[] = [
  ...overdriveAnyCases,
  ...commonModeCases,
  ...contentionRailCases,
  ...openInputCases,
  ...stuckCases,
  ...busSplitCases,
  ...slowCases,
  ...shortByContactCases,
  ...contactRatingCases,
  ...partRatingCases,
  ...mainsCases,
  ...noReturnCases,
  ...returnPathCases,
  ...twoRegulatorsCases,
  ...switchedGroundCases,
  ...arrivesCases,
  ...inrushCases,
  ...driverLossCases,
  ...batteryNoteCases,
];
