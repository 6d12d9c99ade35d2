import type { Circuit } from "../../circuit";
import { plugBoard, plugDrawing, plugSteps } from "../../build/plugboard";
import { fingerprint } from "../../project";
import { drawFitting, drawTrue, scaleBar } from "./draw";
import { closeSheet, heading, newPage, openSheet, say, tickLine, type Fonts, type Paper, type Sheet } from "./sheet";

function drawSide(s: Sheet, d: ReturnType<typeof plugDrawing>, title: string, why: string) {
  heading(s, title, why);
  drawTrue(s, scaleBar());
  if (drawTrue(s, d)) return;
  newPage(s);
  if (drawTrue(s, d)) return;
  say(s, "Too large for this paper in true size: here it is smaller.", { bold: true });
  drawFitting(s, d);
}

/** The board for a header: both sides in true size, and the steps with a box each. */
export async function printPlugBoard(c: Circuit, fonts: Fonts, paper: Paper = "a4"): Promise<Uint8Array> {
  const s = await openSheet(`${c.project.title}, plug-on board`, fonts, paper);
  const b = plugBoard(c);
  if (!b) {
    heading(s, `${c.project.title}: plug-on board`);
    say(s, "Nothing plugs onto a header yet: the project needs a board whose header has places, and wires.");
  } else if (!b.header.length) {
    heading(s, `${c.project.title}: plug-on board`);
    for (const t of b.trouble) say(s, t, { bold: true });
  } else {
    for (const t of b.trouble) say(s, t, { bold: true });
    drawSide(
      s,
      plugDrawing(b, "parts"),
      `${c.project.title}: board for ${b.hostName}, 1:1`,
      "The side with the parts. Print without fitting to the page and measure the bar first. Wires lie on the back.",
    );
    newPage(s);
    drawSide(s, plugDrawing(b, "back"), "The back, 1:1", "Turned over like a page: column 1 is on the right.");
    for (const step of plugSteps(c, b)) {
      heading(s, step.title, step.why);
      for (const row of step.rows) tickLine(s, row);
    }
    if (
      b.missing.some((m) =>
        b.parts.some((p) => p.leads && p.ref === b.host && p.pins.some((x) => m.pins.includes(x.pin))),
      )
    )
      heading(s, "Rows that no hole meets", "Their pins have wires of their own.");
    for (const m of b.missing) say(s, `${m.pins.join(", ")}: ${m.why}`, { size: 8.5 });
    say(
      s,
      "Take care: the iron burns, cut leads fly, fumes want fresh air. Goggles, a stand for the iron, hands washed after.",
      { bold: true },
    );
  }
  return closeSheet(s, c.project.title, fingerprint(c.project));
}
