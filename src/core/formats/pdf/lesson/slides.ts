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

/** The loom with one net lit and the step's pins or part ringed; what was laid before stands back, the rest is not there yet. */
function lit(l: Loom, step: SheetStep, laid: ReadonlySet<string>): Drawing {
  const there = new Set([...laid, step.net]);
  const shown = loomDrawing({ ...l, nets: l.nets.filter((n) => there.has(n.name)) });
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

/** A page of its own, the drawing below what is to be done. */
function slide(s: Sheet, x: SheetStep, of: number, drawing: Drawing | null): void {
  newPage(s);
  say(s, `${x.phase}   ${x.step} of ${of}`, { size: 13, soft: true, gap: 2 });
  say(s, x.title, { size: 30, bold: true, gap: 2 });
  say(s, x.says, { size: drawing ? 19 : 26, gap: drawing ? 4 : 14 });
  say(s, x.look, { size: drawing ? 13 : 18, soft: true, gap: 6 });
  if (!drawing || room(s) < 120) return;
  const [w, h] = [inner(s), room(s) - 8];
  const scale = Math.min(w / drawing.width, h / drawing.height, 1.6);
  draw(s, drawing, MARGIN + (w - drawing.width * scale) / 2, s.y, scale);
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
  const laid = new Set<string>();
  for (const x of l.steps) {
    slide(s, x, l.steps.length, drawn && x.at.length ? lit(drawn, x, laid) : null);
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
