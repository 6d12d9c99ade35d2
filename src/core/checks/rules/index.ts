/** Rules over the solved circuit: one file each, its cases beside it, one line here. */
import type { Rule } from "../types";
import { contactRating } from "./contact-rating";
import { commonMode } from "./level-common-mode";
import { overdriveAny } from "./level-overdrive-any";
import { slow } from "./level-slow";
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
