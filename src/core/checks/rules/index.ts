/** Rules over the solved circuit: one file each, its cases beside it, one line here. */
import type { Rule } from "../types";
import { contactRating } from "./contact-rating";
import { overdriveAny } from "./level-overdrive-any";
import { contentionRail } from "./net-contention-rail";
import { partRating } from "./part-rating";
import { mains } from "./power-mains";
import { noReturn } from "./power-no-return";
import { shortByContact } from "./power-short-by-contact";

export const solvedRules: readonly Rule[] = [
  overdriveAny,
  contentionRail,
  shortByContact,
  contactRating,
  partRating,
  mains,
  noReturn,
];
