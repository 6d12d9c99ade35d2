import { clip, endPath, popGraphicsState, pushGraphicsState, rectangle, type PDFEmbeddedPage } from "pdf-lib";
import type { Circuit } from "../../../circuit";
import { loom, loomDrawing, type Loom } from "../../../build";
import { layOutHere } from "../../../build/loom/elk";
import type { Drawing, Shape } from "../../../drawing";
import { lessonOf, type SheetStep } from "../../../lesson";
import { draw } from "../draw";
import {
  closeSheet,
  heading,
  inner,
  MARGIN,
  newPage,
  openSheet,
  room,
  say,
  turnPaper,
  type Fonts,
  type Paper,
  type Sheet,
} from "../sheet";
import { forWhom } from "./words";

const RING = 9;
/** Scales of the drawing: the largest of a small one, the least at which names are read; what is shown round a pin. */
const MOST_SCALE = 1.6;
const LEAST_SCALE = 0.9;
const ROUND = 160;

/** What changes from step to step: the wires that are laid, the step's own lit, its pins or part ringed. */
function lit(l: Loom, step: SheetStep, laid: ReadonlySet<string>): Drawing {
  const there = new Set([...laid, step.net]);
  const shown = loomDrawing({ ...l, boxes: [], tags: [], cables: [], nets: l.nets.filter((n) => there.has(n.name)) });
  const at = new Set(step.at);
  const rings: Shape[] = l.boxes.flatMap((b): Shape[] => [
    ...(at.has(b.ref)
      ? [{ kind: "rect" as const, x: b.x - 5, y: b.y - 5, w: b.w + 10, h: b.h + 10, stroke: "ink" as const, width: 4 }]
      : []),
    ...b.pins
      .filter((p) => at.has(p.end))
      .map((p): Shape => ({ kind: "circle", x: p.x, y: p.y, r: RING, stroke: "ink", width: 3 })),
  ]);
  return {
    ...shown,
    shapes: [
      ...shown.shapes.map((x) =>
        x.kind === "path" && x.of !== undefined
          ? x.of === step.net
            ? { ...x, width: 4.5, dash: [] }
            : { ...x, opacity: 0.3 }
          : x,
      ),
      ...rings,
    ],
  };
}

/** What every slide shows alike, written once: boxes, pins and their names. */
interface Backdrop {
  page: PDFEmbeddedPage;
  width: number;
  height: number;
}
async function backdrop(s: Sheet, l: Loom, fonts: Fonts): Promise<Backdrop> {
  const d = loomDrawing({ ...l, nets: [] });
  const one = await openSheet("loom", fonts, "a4");
  one.page.setSize(d.width, d.height);
  draw(one, d, 0, d.height, 1);
  const [page] = await s.doc.embedPdf(await one.doc.save());
  return { page: page!, width: d.width, height: d.height };
}

/** The whole drawing where its names can be read from the back row; else as much round the step's pins as can. */
function viewOf(
  base: Backdrop,
  drawing: Drawing,
  w: number,
  h: number,
): { x: number; y: number; w: number; h: number } {
  const whole = { x: 0, y: 0, w: base.width, h: base.height };
  const rings = drawing.shapes.flatMap((s) =>
    s.kind === "circle" && s.r === RING
      ? [{ x: s.x, y: s.y, w: 0, h: 0 }]
      : s.kind === "rect"
        ? [{ x: s.x, y: s.y, w: s.w, h: s.h }]
        : [],
  );
  if (!rings.length || Math.min(w / base.width, h / base.height) >= LEAST_SCALE) return whole;
  const [left, up] = [Math.min(...rings.map((r) => r.x)), Math.min(...rings.map((r) => r.y))];
  const [right, down] = [Math.max(...rings.map((r) => r.x + r.w)), Math.max(...rings.map((r) => r.y + r.h))];
  // As large as it is still read at, and no smaller than what is ringed with some of what stands round it.
  const [vw, vh] = [Math.max(w / LEAST_SCALE, right - left + ROUND), Math.max(h / LEAST_SCALE, down - up + ROUND)];
  const within = (middle: number, part: number, all: number) => Math.max(0, Math.min(all - part, middle - part / 2));
  const [fw, fh] = [Math.min(vw, base.width), Math.min(vh, base.height)];
  return { x: within((left + right) / 2, fw, base.width), y: within((up + down) / 2, fh, base.height), w: fw, h: fh };
}

/** A page of its own, the drawing below what is to be done. */
function slide(s: Sheet, x: SheetStep, of: number, base: Backdrop | null, drawing: Drawing | null): void {
  newPage(s);
  say(s, `${x.phase}   ${x.step} of ${of}`, { size: 13, soft: true, gap: 2 });
  say(s, x.title, { size: 30, bold: true, gap: 2 });
  say(s, x.says, { size: drawing ? 19 : 26, gap: drawing ? 4 : 14 });
  say(s, x.look, { size: drawing ? 13 : 18, soft: true, gap: 6 });
  if (!base || !drawing || room(s) < 120) return;
  const [w, h] = [inner(s), room(s) - 8];
  const view = viewOf(base, drawing, w, h);
  const scale = Math.min(w / view.w, h / view.h, MOST_SCALE);
  const [x0, top] = [MARGIN + (w - view.w * scale) / 2, s.y];
  s.page.pushOperators(
    pushGraphicsState(),
    rectangle(x0, top - view.h * scale, view.w * scale, view.h * scale),
    clip(),
    endPath(),
  );
  const [left, up] = [x0 - view.x * scale, top + view.y * scale];
  s.page.drawPage(base.page, { x: left, y: up - base.height * scale, xScale: scale, yScale: scale });
  draw(s, drawing, left, up, scale);
  s.page.pushOperators(popGraphicsState());
}

/** A deck for the wall: lying pages, one step each, the wire of the step lit; questions and their answers after the build. */
export async function printSlides(c: Circuit, fonts: Fonts, paper: Paper = "a4"): Promise<Uint8Array> {
  const l = lessonOf(c);
  const s = await openSheet(`${l.title}, slides`, fonts, paper);
  // The first page is a standing one until the paper is turned.
  s.doc.removePage(0);
  turnPaper(s);
  newPage(s);
  s.y -= 110;
  say(s, l.title, { size: 44, bold: true, gap: 12 });
  if (l.goal) say(s, l.goal, { size: 22, gap: 14 });
  say(s, forWhom(l), { size: 14, soft: true });
  newPage(s);
  heading(s, "Take care");
  for (const r of l.risks) say(s, `${r.what} ${r.does}`, { size: 17, gap: 9 });
  say(s, "If anything gets hot or smells: unplug at once.", { size: 18, bold: true });
  const before = l.questions.filter((q) => q.aim !== "fault-finding");
  for (const q of before) {
    newPage(s);
    say(s, "Foretell", { size: 13, soft: true, gap: 20 });
    say(s, q.ask, { size: 28, gap: 10 });
  }
  const drawn = c.netlist.expanded.instances.size ? await loom(c, layOutHere) : null;
  const base = drawn && (await backdrop(s, drawn, fonts));
  const laid = new Set<string>();
  for (const x of l.steps) {
    slide(s, x, l.steps.length, base, drawn && x.at.length ? lit(drawn, x, laid) : null);
    if (x.net) laid.add(x.net);
  }
  for (const q of l.questions) {
    newPage(s);
    say(s, "And now", { size: 13, soft: true, gap: 16 });
    say(s, q.ask, { size: 20, gap: 16 });
    say(s, q.answer, { size: 24, bold: true, gap: 10 });
    if (q.working) say(s, q.working, { size: 15, soft: true });
  }
  return closeSheet(s, l.title, l.plan);
}
