/** Rules over the solved circuit: one file each, its cases beside it, one line here. */
import type { Rule } from "../types";
import { contactRating } from "./contact-rating";
import { backfeed } from "./level-backfeed";
import { commonMode } from "./level-common-mode";
import { highLow } from "./level-high-low";
import { lowHigh } from "./level-low-high";
import { overdrive } from "./level-overdrive";
import { overdriveAny } from "./level-overdrive-any";
import { slow } from "./level-slow";
import { thinMargin } from "./level-thin-margin";
import { driverLoss } from "./load-driver-loss";
import { contentionRail } from "./net-contention-rail";
import { openInput } from "./net-open-input";
import { partRating } from "./part-rating";
import { stuck } from "./net-stuck";
import { busSplit } from "./pin-bus-split";
import { arrives } from "./power-arrives";
import { inrush } from "./power-inrush";
import { mains } from "./power-mains";
import { noReturn } from "./power-no-return";
import { polarityProtection } from "./power-polarity-protection";
import { returnPath } from "./power-return-path";
import { shortByContact } from "./power-short-by-contact";
import { sleep } from "./power-sleep";
import { twoRegulators } from "./power-two-regulators";
import { shortCurrent } from "./wire-short-current";

/** One driver against one reader: thresholds, ceilings, and what a dead part is fed. */
export const levelRules: readonly Rule[] = [lowHigh, highLow, thinMargin, overdrive, backfeed];

export const solvedRules: readonly Rule[] = [
  overdriveAny,
  commonMode,
  contentionRail,
  openInput,
  stuck,
  busSplit,
  slow,
  shortByContact,
  contactRating,
  partRating,
  mains,
  noReturn,
  returnPath,
  twoRegulators,
  arrives,
  inrush,
  shortCurrent,
  polarityProtection,
  sleep,
  driverLoss,
];
