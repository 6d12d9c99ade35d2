import { isLaid, phaseById, runSheet, type RunRow } from "../build";
import type { Circuit } from "../circuit";
import type { LessonLevel } from "../project";
import { secondsOf } from "./pace";
import type { SheetStep } from "./types";

/** Where an end is, in words: its hole where it is on a breadboard, else the pin counted off. */
const place = (words: string, hole: string, level: LessonLevel) =>
  hole ? (level === "7-11" ? `hole ${hole}` : `hole ${hole} (${words})`) : words;

/** What is laid, in a sentence of the level. */
function laid(r: RunRow, level: LessonLevel): { title: string; says: string } {
  const [from, to] = [place(r.fromWords, r.holeA, level), place(r.toWords, r.holeB, level)];
  if (r.kind === "cable") return { title: "Plug in", says: `${r.fromWords} goes to ${r.toWords}.` };
  if (r.kind === "leg") return { title: "A leg of a part", says: `${from} goes to ${to}.` };
  const wire = level === "7-11" ? `${r.colour} wire` : `${r.colour} wire, ${r.length_cm} cm`;
  const net = level === "7-11" ? "" : ` It is ${r.net}.`;
  return { title: `A ${wire}`, says: `From ${from} to ${to}.${net}` };
}

const KINDS: Record<Exclude<RunRow["kind"], "wire" | "leg" | "cable" | "row">, string> = {
  look: "Look",
  solder: "Solder",
  turn: "Put it the right way round",
};

/**
 * The run sheet as learners of a level read it. Stops to measure are signed by the teacher; for the youngest each tells how to
 * show it, for the oldest each step also says why it comes now.
 */
export function stepsOf(c: Circuit, level: LessonLevel): SheetStep[] {
  return runSheet(c)
    .filter((r) => r.kind !== "row")
    .map((r): SheetStep => {
      const stop = r.kind === "look" && r.id.startsWith("check-");
      const t = isLaid(r)
        ? laid(r, level)
        : { title: stop ? "Stop: show it to your teacher" : KINDS[r.kind as keyof typeof KINDS], says: r.note };
      const note =
        isLaid(r) && r.note ? ` ${r.note[0]!.toUpperCase()}${r.note.slice(1)}${/[.!?]$/.test(r.note) ? "" : "."}` : "";
      return {
        id: r.id,
        step: r.step,
        phase: phaseById(r.phase).title,
        title: t.title,
        says: t.says + note,
        look: level === "14+" ? `${r.why} ${r.check}` : r.check,
        net: r.net,
        at: [r.from, r.to].filter((e, i, list) => e !== "everything" && list.indexOf(e) === i),
        sign: stop,
        seconds: secondsOf(r, level),
      };
    });
}
