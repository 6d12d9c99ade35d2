import type { Circuit } from "../../../circuit";
import { loom, loomDrawing, SMALLEST_TEXT } from "../../../build";
import { layOutHere } from "../../../build/loom/elk";
import { drawAcross } from "../draw";
import { paperTask } from "../../../lesson/paper";
import { fingerprint } from "../../../project";
import { closeSheet, heading, newPage, openSheet, say, tickLine, type Fonts, type Paper } from "../sheet";

/** Five minutes with a pencil: parts without wires, what is to be joined and why; on the second page the plan, to compare. */
export async function printPaper(c: Circuit, fonts: Fonts, paper: Paper = "a4"): Promise<Uint8Array> {
  const task = paperTask(c);
  const s = await openSheet(`${c.project.title}, on paper`, fonts, paper);
  say(s, c.project.title, { size: 22, bold: true, gap: 2 });
  if (c.project.brief.goal) say(s, c.project.brief.goal, { size: 11, gap: 6 });
  heading(
    s,
    `${task.minutes} minutes with a pencil`,
    "On the drawing that follows, draw each of these as a line. Nothing is powered, nothing can break.",
  );
  task.joins.forEach((j, i) => tickLine(s, `${i + 1}. ${j.says}`, 11));
  if (task.given.length)
    say(s, `Left out, since there are only five minutes: ${task.given.join("; ")}.`, { size: 9.5, soft: true, gap: 4 });
  heading(s, "Before you turn the page");
  for (const t of task.asks) say(s, t, { size: 11, gap: 18 });
  const drawn = await loom(c, layOutHere);
  if (c.netlist.expanded.instances.size) {
    const bare = loomDrawing({ ...drawn, nets: [], cables: [], tags: [] });
    drawAcross(s, bare, "Draw here", "Square pin: pin 1. Every part as it is seen from the top.", SMALLEST_TEXT);
    drawAcross(
      s,
      loomDrawing(drawn),
      "The plan, to compare",
      "Another way to draw the same joins is as right.",
      SMALLEST_TEXT,
    );
  } else newPage(s);
  return closeSheet(s, `${c.project.title}, on paper`, fingerprint(c.project));
}
