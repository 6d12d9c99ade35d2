import type { LessonAim, LessonLevel } from "../project";

/** A question about this very plan; the answer is computed from it. */
export interface Question {
  /** The same question of the same plan has the same one: what was printed is compared by it. */
  id: string;
  aim: LessonAim;
  ask: string;
  answer: string;
  /** How the answer is worked out, for those who shall do so. */
  working?: string;
}

/** One thing to do, as a learner reads it. */
export interface SheetStep {
  id: string;
  /** Number of the step on the run sheet; the same on the slide. */
  step: number;
  phase: string;
  title: string;
  says: string;
  /** What to look at before going on. */
  look: string;
  /** The net that is lit on the slide, and pins or parts that are ringed. */
  net: string;
  at: string[];
  /** What the teacher signs before it goes on. */
  sign: boolean;
  seconds: number;
}

export interface Block {
  what: string;
  minutes: number;
  /** Steps of the sheet in it, from and to, where it is building. */
  steps?: [number, number];
}
/** One meeting of the class: what fits into its minutes, with unpacking and packing away. */
export interface Session {
  blocks: Block[];
  minutes: number;
}

export interface Risk {
  id: string;
  what: string;
  where: string;
  does: string;
}

export interface Extension {
  says: string;
  /** What it takes besides, by name. */
  takes: string[];
}

export interface KitContents {
  bench: number;
  lines: { number: number; what: string }[];
}

/** A fault dealt to a bench: how to set it in the trainer, and the key. */
export interface DealtFault {
  bench: number;
  level: string;
  levelName: string;
  seed: number;
  complaint: string[];
  fault: string;
  mend: string;
  /** Measurements of who always measures what tells most. */
  best: number;
}

/** Everything of a lesson on a plan. */
export interface Lesson {
  plan: string;
  title: string;
  goal: string;
  level: LessonLevel;
  minutes: number;
  aims: LessonAim[];
  benches: number;
  sessions: Session[];
  steps: SheetStep[];
  questions: Question[];
  extensions: Extension[];
  risks: Risk[];
  kits: KitContents[];
  faults: DealtFault[];
}
