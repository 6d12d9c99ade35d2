import type { Circuit } from "../../circuit";
import { findings, verdict } from "../../checks";
import { runSheet } from "../../build";
import { fingerprint } from "../../project";
import { remarksOf } from "../../review";
import { codeOf, MOST_LETTERS, packPlan } from "../../share";
import { draw } from "./draw";
import {
  closeSheet,
  heading,
  inner,
  MARGIN,
  openSheet,
  POINTS_PER_MM,
  room,
  say,
  table,
  type Fonts,
  type Paper,
} from "./sheet";

/** A side of the code on paper: as large as is read easily, no larger than the page. */
const SIDE_MM = 120;
const MOST_ROWS = 60;

/** A plan on one page to hand on: what it is, the code that holds it whole, its wires; and what others have said about it. */
export async function printShare(c: Circuit, fonts: Fonts, paper: Paper = "a4"): Promise<Uint8Array> {
  const s = await openSheet(`${c.project.title}, to pass on`, fonts, paper);
  say(s, c.project.title, { size: 20, bold: true, gap: 2 });
  if (c.project.brief.goal) say(s, c.project.brief.goal, { size: 10, gap: 3 });
  say(s, verdict(c, findings(c)).words, { size: 12, bold: true, gap: 4 });
  const text = packPlan(c.project);
  const code = codeOf(text);
  if (code) {
    say(
      s,
      "Photograph the code, copy its text, and give it to the first page of the app: “Open a plan as text”. It holds parts, wires, rules and remarks; not what was measured on a bench.",
      { size: 9, soft: true, gap: 4 },
    );
    const side = Math.min(SIDE_MM * POINTS_PER_MM, inner(s), room(s) - 120);
    draw(s, code, MARGIN + (inner(s) - side) / 2, s.y, side / code.width);
    s.y -= side + 6;
  } else
    say(
      s,
      `This plan is too large for a code: ${text.length} letters, and a code holds ${MOST_LETTERS}. Pass its file on.`,
      { size: 10, bold: true, gap: 6 },
    );
  const wires = runSheet(c).filter((r) => r.kind === "wire" || r.kind === "leg" || r.kind === "cable");
  // Two columns of wires, as many as the page still holds.
  const rows = Math.max(0, Math.min(MOST_ROWS, Math.floor((room(s) - 50) / 12) * 2));
  const shown = wires.slice(0, rows);
  if (shown.length) {
    const half = Math.ceil(shown.length / 2);
    const cell = (i: number) => (shown[i] ? [`${shown[i].from} to ${shown[i].to}`, shown[i].net] : ["", ""]);
    table(
      s,
      [
        { title: "wire", share: 30 },
        { title: "net", share: 20 },
        { title: "wire", share: 30 },
        { title: "net", share: 20 },
      ],
      Array.from({ length: half }, (_, i) => [...cell(i), ...cell(half + i)]),
      7,
    );
  }
  if (wires.length > shown.length) say(s, `and ${wires.length - shown.length} wires more`, { size: 8, soft: true });
  const remarks = remarksOf(c);
  if (remarks.length) {
    heading(s, "Remarks");
    for (const r of remarks) {
      say(s, `${r.about}${r.gone ? " (no longer in the plan)" : ""}: ${r.remark.says}`, { gap: 1 });
      say(
        s,
        `${r.remark.by || "somebody"}, ${r.remark.when.slice(0, 10)}${r.remark.done ? `; done: ${r.remark.done.says || "yes"}` : "; open"}`,
        { indent: 10, soft: true, gap: 4 },
      );
    }
  }
  return closeSheet(s, `${c.project.title}, to pass on`, fingerprint(c.project));
}
