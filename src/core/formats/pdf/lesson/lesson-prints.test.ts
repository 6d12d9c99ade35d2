import fs from "node:fs";
import { PDFDocument } from "pdf-lib";
import { describe, expect, it } from "vitest";
import { circuitOf } from "../../../circuit";
import { courseOf, emptyCourse } from "../../../course";
import { lessonOf, MOST_JOINS, paperTask } from "../../../lesson";
import { beginPattern, patternById, PATTERNS } from "../../../patterns";
import { applyEdit, emptyProject, joinEnd, type Project } from "../../../project";
import { catalogue } from "../../../testing";
import { PRINTS } from "..";
import { printCourse } from "../course";
import { lessonPack } from "../../lesson-pack";

const font = (w: number) =>
  new Uint8Array(
    fs.readFileSync(
      new URL(
        `../../../../../node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${w}-normal.woff`,
        import.meta.url,
      ),
    ),
  );
const fonts = { text: font(400), bold: font(700) };
const of = (id: string) => beginPattern(patternById(id, PATTERNS)!, catalogue).project;
const c = (p: Project) => circuitOf(p, catalogue);
const pages = async (bytes: Uint8Array) => (await PDFDocument.load(bytes)).getPages();

describe("prints of a lesson", () => {
  const p = applyEdit(of("keypad"), { type: "setKit", kit: { benches: 9 } }, catalogue);
  it("slides lie, one step each, with a first page, cautions, and questions before and after", async () => {
    const l = lessonOf(c(p));
    const list = await pages(await PRINTS.slides(c(p), fonts, "a4"));
    const before = l.questions.filter((q) => q.aim !== "fault-finding").length;
    expect(list).toHaveLength(2 + before + l.steps.length + l.questions.length);
    for (const page of list) expect(page.getWidth()).toBeGreaterThan(page.getHeight());
  });
  it("a card for each box, four on a page", async () => {
    expect(await pages(await PRINTS.kits(c(p), fonts, "letter"))).toHaveLength(3);
  });
  it("the same plan makes the same bytes; a plan without anything makes pages, too", async () => {
    for (const what of ["sheets", "teacher", "slides", "kits", "paper", "share"] as const) {
      const [a, b] = [await PRINTS[what](c(p), fonts, "a4"), await PRINTS[what](c({ ...p }), fonts, "a4")];
      expect(Buffer.from(a).equals(Buffer.from(b)), what).toBe(true);
      expect((await pages(await PRINTS[what](c(emptyProject("Nothing yet")), fonts, "a4"))).length).toBeGreaterThan(0);
    }
  });
  it("labels of any letters stay on their pages", async () => {
    const odd = applyEdit(p, { type: "setLabel", ref: "M1", label: "😀‮=1+1</script>".slice(0, 60) }, catalogue);
    const files = await lessonPack(c(odd), fonts);
    expect(Object.keys(files)).toContain("slides.pdf");
    expect(String(files["faults.csv"])).not.toMatch(/(^|,)=/m);
  });
});

describe("five minutes with a pencil", () => {
  it.each(PATTERNS.map((x) => [x.id, x] as const))("%s: joins of the plan, no more than can be drawn", (_n, x) => {
    const circuit = c(beginPattern(x, catalogue).project);
    const t = paperTask(circuit);
    const wires = circuit.netlist.wires.filter((w) => !w.cable);
    const key = (a: string, b: string) => [a, b].sort().join(" ");
    const known = new Set(wires.map((w) => key(joinEnd(w.from), joinEnd(w.to))));
    expect(t.joins.length).toBe(Math.min(MOST_JOINS, wires.length));
    expect(t.joins.length + t.given.length).toBe(wires.length);
    for (const j of t.joins) expect(known, j.says).toContain(key(...j.ends));
    // A ground and a signal are among them: not five of a kind.
    if (wires.length > 4) expect(t.joins.some((j) => /go back/.test(j.says))).toBe(true);
  });
});

describe("a course on paper", () => {
  it("has a card for every box of every bench", async () => {
    const projects = new Map(["light-and-button", "keypad"].map((id) => [id, of(id)]));
    const lessons = [...projects.keys()].map((project, i) => ({ project, week: i + 1, stays: false }));
    const v = courseOf({ ...emptyCourse("Two"), benches: 5, lessons }, projects, catalogue);
    const [few, many] = await Promise.all([
      pages(await printCourse({ ...v, benches: 1 }, fonts, "a4")),
      pages(await printCourse(v, fonts, "a4")),
    ]);
    expect(many.length - few.length).toBe(Math.ceil((5 * v.boxes.length) / 4) - Math.ceil(v.boxes.length / 4));
    expect(
      (await pages(await printCourse(courseOf(emptyCourse("None"), projects, catalogue), fonts, "a4"))).length,
    ).toBe(1);
  });
});
