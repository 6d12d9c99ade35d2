import type { Circuit } from "../../../circuit";
import { loom, loomDrawing, SMALLEST_TEXT } from "../../../build";
import { layOutHere } from "../../../build/loom/elk";
import { lessonOf, type Lesson, type SheetStep } from "../../../lesson";
import { drawAcross } from "../draw";
import {
  closeSheet,
  heading,
  newPage,
  openSheet,
  room,
  say,
  table,
  tickLine,
  type Fonts,
  type Paper,
  type Sheet,
} from "../sheet";
import { writeLines } from "./lines";
import { forWhom } from "./words";

/** Letters are larger the younger who reads them. */
const SIZE = { "7-11": 12.5, "11-14": 10.5, "14+": 9.5 } as const;
const LINES = { "7-11": 2, "11-14": 2, "14+": 3 } as const;

function steps(s: Sheet, l: Lesson): void {
  const size = SIZE[l.level];
  let phase = "";
  const step = (x: SheetStep) => {
    if (x.phase !== phase) {
      heading(s, x.phase);
      phase = x.phase;
    }
    if (room(s) < 5 * size) newPage(s);
    tickLine(s, `${x.step}. ${x.title}`, size);
    say(s, x.says, { size, indent: 18, gap: 1 });
    say(s, x.look, { size: size - 1.5, indent: 18, soft: true, gap: x.sign ? 2 : 6 });
    if (x.sign) say(s, "Shown to: ______________________    at: __________", { size, indent: 18, gap: 10 });
  };
  l.steps.forEach(step);
}

/** What a learner has on the table: what it will be, questions before, the drawing, every step, who signed, what went wrong. */
export async function printSheets(c: Circuit, fonts: Fonts, paper: Paper = "a4"): Promise<Uint8Array> {
  const l = lessonOf(c);
  const s = await openSheet(`${l.title}, learner sheets`, fonts, paper);
  const size = SIZE[l.level];
  say(s, l.title, { size: 24, bold: true, gap: 2 });
  say(s, "Bench: ________      Names: ________________________________", { size: 11, gap: 8 });
  if (l.goal) say(s, l.goal, { size: size + 1, gap: 6 });
  say(s, forWhom(l), { size: 9.5, soft: true, gap: 4 });
  heading(s, "Take care");
  for (const r of l.risks) say(s, `${r.what} ${r.does}`, { size: size - 0.5, indent: 8 });
  say(s, "If anything gets hot or smells: unplug at once, then tell your teacher.", { size, bold: true, indent: 8 });
  const before = l.questions.filter((q) => q.aim !== "fault-finding");
  heading(s, "Foretell", "Before anything is built: write down what you think. Being wrong is how it works.");
  before.forEach((q, i) => {
    say(s, `${i + 1}. ${q.ask}`, { size, gap: 2 });
    writeLines(s, LINES[l.level]);
  });
  if (c.netlist.expanded.instances.size)
    drawAcross(
      s,
      loomDrawing(await loom(c, layOutHere)),
      "How it is joined",
      "Square pin: pin 1. Double bar: the wire goes to the rail that is named.",
      SMALLEST_TEXT,
    );
  newPage(s);
  heading(s, "Build", "One wire at a time. Tick a step when its wire is in and you have looked.");
  steps(s, l);
  const faults = l.questions.filter((q) => q.aim === "fault-finding");
  if (faults.length) {
    heading(s, "Find the fault");
    faults.forEach((q, i) => {
      say(s, `${before.length + i + 1}. ${q.ask}`, { size, gap: 2 });
      writeLines(s, LINES[l.level] + 1);
    });
    heading(s, "The fault of your bench", "Measure, write down, rule out. One change at a time.");
    table(
      s,
      [
        { title: "measured between", share: 34 },
        { title: "expected", share: 18 },
        { title: "shown", share: 18 },
        { title: "so it can't be", share: 30 },
      ],
      Array.from({ length: 6 }, () => [" ", " ", " ", " "]),
      14,
    );
    say(s, "It was:", { size, gap: 2 });
    writeLines(s, 1);
  }
  if (l.extensions.length) {
    heading(s, "Done? Go on");
    for (const e of l.extensions) tickLine(s, e.says, size);
  }
  return closeSheet(s, `${l.title}, for learners`, l.plan);
}
