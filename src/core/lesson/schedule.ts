import { count } from "../quantity/count";
import type { LessonAim, LessonLevel } from "../project";
import { PACE } from "./pace";
import type { Block, Question, Session, SheetStep } from "./types";

/** Minutes that every meeting takes beside the work: handing out, reading aloud what is dangerous; collecting, counting. */
export const UNPACK_MIN = 5;
export const PACK_MIN = 6;
const UPLOAD_MIN = 8;
const PLAY_MIN = 5;
const minutes = (seconds: number) => Math.max(1, Math.ceil(seconds / 60));

interface Piece {
  what: string;
  seconds: number;
  step?: number;
}

/** Everything to be done, in order, in pieces that may be parted between two meetings. */
function pieces(o: {
  steps: readonly SheetStep[];
  questions: readonly Question[];
  checks: number;
  level: LessonLevel;
  aims: readonly LessonAim[];
}): Piece[] {
  const p = PACE[o.level];
  const late = o.questions.filter((q) => q.aim === "fault-finding").length;
  const early = o.questions.length - late;
  return [
    ...(early ? [{ what: `predict: ${count(early, "question")}`, seconds: early * p.question }] : []),
    ...o.steps.map((s) => ({ what: "build", seconds: s.seconds, step: s.step })),
    { what: `measure: ${count(o.checks, "check")}`, seconds: o.checks * p.measure },
    { what: "upload, and see it work", seconds: 60 * (UPLOAD_MIN + PLAY_MIN) },
    ...(o.aims.includes("fault-finding")
      ? [{ what: "find the hidden fault", seconds: p.fault + late * p.question }]
      : []),
  ];
}

/** Spreads the work over meetings of so many minutes, each with its unpacking and packing away; a step is never parted. */
export function sessionsOf(o: Parameters<typeof pieces>[0] & { minutes: number }): Session[] {
  const room = 60 * Math.max(1, o.minutes - UNPACK_MIN - PACK_MIN);
  const out: Piece[][] = [[]];
  let used = 0;
  for (const piece of pieces(o)) {
    if (used > 0 && used + piece.seconds > room) {
      out.push([]);
      used = 0;
    }
    out.at(-1)!.push(piece);
    used += piece.seconds;
  }
  return out.map((list, i): Session => {
    const blocks: Block[] = [
      { what: i ? "unpack, and test what was built" : "unpack, and read what to take care of", minutes: UNPACK_MIN },
    ];
    let build: Piece[] = [];
    const close = () => {
      const [first, last] = [build[0]?.step, build.at(-1)?.step];
      if (first !== undefined)
        blocks.push({
          what: `build: steps ${first} to ${last}`,
          minutes: minutes(build.reduce((s, x) => s + x.seconds, 0)),
          steps: [first, last!],
        });
      build = [];
    };
    for (const x of list) {
      if (x.step !== undefined) build.push(x);
      else {
        close();
        blocks.push({ what: x.what, minutes: minutes(x.seconds) });
      }
    }
    close();
    blocks.push({ what: "unplug, count, pack away", minutes: PACK_MIN });
    return { blocks, minutes: blocks.reduce((s, b) => s + b.minutes, 0) };
  });
}
