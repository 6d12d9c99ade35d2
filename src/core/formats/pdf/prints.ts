import type { Circuit } from "../../circuit";
import { printKits } from "./lesson/kits";
import { printPaper } from "./lesson/paper";
import { printSheets } from "./lesson/sheets";
import { printSlides } from "./lesson/slides";
import { printTeacher } from "./lesson/teacher";
import { printShare } from "./share";
import { printPlan } from "./plan";
import { printPlugBoard } from "./plugboard";
import type { Fonts, Paper } from "./sheet";
import { printLabels, printPanel, printUnderlay } from "./underlay";

type Print = (c: Circuit, fonts: Fonts, paper: Paper) => Promise<Uint8Array>;

/** Every print by its name. Adding one is a function and a line here; screen, server and command line follow. */
export const PRINTS = {
  plan: (c, fonts, paper) => printPlan(c, fonts, { paper }),
  learner: (c, fonts, paper) => printPlan(c, fonts, { paper, variant: "learner" }),
  answers: (c, fonts, paper) => printPlan(c, fonts, { paper, variant: "answers" }),
  sheets: printSheets,
  teacher: printTeacher,
  slides: printSlides,
  kits: printKits,
  paper: printPaper,
  share: printShare,
  underlay: printUnderlay,
  panel: printPanel,
  plugboard: printPlugBoard,
  labels: printLabels,
} satisfies Record<string, Print>;
export type PrintId = keyof typeof PRINTS;

export const isPrint = (s: string): s is PrintId => Object.hasOwn(PRINTS, s);
export const isPaper = (s: string): s is Paper => s === "a4" || s === "letter";
