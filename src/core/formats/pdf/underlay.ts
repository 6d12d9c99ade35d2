import type { Circuit } from "../../circuit";
import { breadboardDrawing, labelSheets, labelsFor, layoutInProject, propose, SIZES } from "../../build";
import { panelDrawing, panelOf, wallsOf } from "../../build/panel";
import { fingerprint } from "../../project";
import { drawFitting, drawTrue, scaleBar } from "./draw";
import { closeSheet, heading, newPage, openSheet, PAPERS, POINTS_PER_MM, say, type Fonts, type Paper } from "./sheet";

/** The breadboard in true size, to lie under it or beside it, with a bar that checks the printer. */
export async function printUnderlay(c: Circuit, fonts: Fonts, paper: Paper = "a4"): Promise<Uint8Array> {
  const s = await openSheet(`${c.project.title}, underlay`, fonts, paper);
  const layout = layoutInProject(c) ?? propose(c);
  heading(s, `${c.project.title}: breadboard 1:1`, "Print without fitting to the page. Measure the bar first.");
  drawTrue(s, scaleBar());
  if (layout.parts.length && !drawTrue(s, breadboardDrawing(c, layout))) {
    const widest = Math.max(...layout.sizes.map((x) => SIZES[x].mm[0]));
    say(
      s,
      `${layout.sizes.length} boards of up to ${widest} mm do not fit this paper side by side in true size; here they are smaller.`,
    );
    drawFitting(s, breadboardDrawing(c, layout));
  }
  return closeSheet(s, c.project.title, fingerprint(c.project));
}

/** Tags to cut out, in true size. */
export async function printLabels(c: Circuit, fonts: Fonts, paper: Paper = "a4"): Promise<Uint8Array> {
  const s = await openSheet(`${c.project.title}, labels`, fonts, paper);
  const [w, h] = PAPERS[paper];
  // Room for the foot, and for printers that leave a rim.
  const pages = labelSheets(labelsFor(c), w / POINTS_PER_MM - 24, h / POINTS_PER_MM - 42);
  if (!pages.length) say(s, "Nothing to label yet.");
  pages.forEach((d, i) => {
    if (i) newPage(s);
    drawTrue(s, d);
  });
  return closeSheet(s, `${c.project.title}: fold a wire's tag round it at the dashes`, fingerprint(c.project));
}

/** The drill templates of the box's walls, in true size, with the bar that checks the printer. */
export async function printPanel(c: Circuit, fonts: Fonts, paper: Paper = "a4"): Promise<Uint8Array> {
  const s = await openSheet(`${c.project.title}, box`, fonts, paper);
  heading(
    s,
    `${c.project.title}: box 1:1`,
    "Print without fitting to the page. Measure the bar, then each part, before drilling.",
  );
  const panel = panelOf(c);
  if (!panel) say(s, "This project has no box yet: give its size in the Wiring station, under Solder build.");
  else {
    drawTrue(s, scaleBar());
    for (const t of panel.trouble) say(s, t, { bold: true });
    for (const wall of wallsOf(panel)) {
      const d = panelDrawing(panel, wall);
      if (drawTrue(s, d)) continue;
      newPage(s);
      if (drawTrue(s, d)) continue;
      say(s, `The ${wall} does not fit this paper in true size; it is smaller here, and no template.`, { bold: true });
      drawFitting(s, d);
    }
    say(
      s,
      "Take care: clamp the work, start with a small drill, goggles against chips. Mark the centres with a punch.",
    );
    for (const t of new Set(panel.parts.map((p) => `${p.name}: ${p.cutout.says}`)))
      say(s, t, { size: 8.5, soft: true });
  }
  return closeSheet(s, c.project.title, fingerprint(c.project));
}
