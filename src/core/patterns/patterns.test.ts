import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { findings } from "../checks";
import { bound, find, reasonOf } from "../bench/reason";
import { stageOf } from "../bench/stage";
import { checklist } from "../bench";
import { placedAsBuilt, runSheet } from "../build";
import { deal, levelsOf } from "../bench/trainer/trainer";
import { programOf, type Tried } from "../firmware/sim";
import { TARGETS } from "../firmware";
import { assign } from "../plan/assign";
import { refsOf, readProject, writeProject, applyEdit } from "../project";
import { catalogue } from "../testing";
import { beginPattern, goOn, patternById, patternParts, PATTERNS, toLookAt } from ".";

/** Every pattern on every board that it says it is sound on. */
const ALL = PATTERNS.flatMap((p) => p.boards.map((b) => [`${p.id} on ${b}`, p, b] as const));
/** Notes that would make a pattern unfinished, were they there. */
const UNFINISHED = /^(part\.unwired|net\.dangling|firmware\.|part\.print|companion)/;
const wrong = (p: Parameters<typeof circuitOf>[0]) =>
  findings(circuitOf(p, catalogue))
    .filter((f) => f.severity !== "note" || UNFINISHED.test(f.rule))
    .map((f) => `${f.severity} ${f.rule}: ${f.message}`);

describe("patterns", () => {
  it("are at least twenty, each with a name of its own and boards that there are", () => {
    expect(PATTERNS.length).toBeGreaterThanOrEqual(20);
    expect(new Set(PATTERNS.map((p) => p.id)).size).toBe(PATTERNS.length);
    expect(new Set(PATTERNS.map((p) => p.title)).size).toBe(PATTERNS.length);
    for (const p of PATTERNS) {
      for (const id of patternParts(p)) expect(catalogue.get(id), `${p.id}: ${id}`).toBeDefined();
      for (const text of [p.goal, p.learns, ...p.onward.map((o) => o.says)]) expect(text, p.id).toMatch(/\.$/);
      expect(new Set(p.onward.map((o) => o.id)).size, p.id).toBe(3);
      const refs = new Set(["B1", ...p.parts.map((x) => x.ref)]);
      for (const r of p.rules) for (const ref of refsOf(r)) expect(refs, p.id).toContain(ref);
    }
  });
  it.each(ALL)("%s: ready to wire, with nothing left out, and the same each time", (_n, p, board) => {
    const begun = beginPattern(p, catalogue, { board });
    expect(begun.clash).toBeNull();
    expect(begun.verdict).toBe("Ready to wire");
    expect(wrong(begun.project)).toEqual([]);
    expect(beginPattern(p, catalogue, { board }).project).toEqual(begun.project);
    // Every sentence is followed by the program of one of its boards.
    const refs = new Set(begun.project.parts.map((x) => x.ref));
    for (const r of begun.project.rules ?? []) for (const ref of refsOf(r)) expect(refs).toContain(ref);
    // It is a document like any other, and planning it again moves nothing.
    const back = readProject(writeProject(begun.project), catalogue);
    expect(back.ok && back.project).toEqual(begun.project);
    expect(assign(begun.project, catalogue).project.links).toEqual(begun.project.links);
  });
  it.each(ALL)("%s: three ways to go on, sound each, or told why not", (_n, p, board) => {
    const { project } = beginPattern(p, catalogue, { board });
    for (const o of p.onward) {
      const g = goOn(project, o, catalogue);
      // Only the smallest chip has no pins left, and says so.
      if (g.clash !== null) {
        expect(board).toBe("chip/attiny85-dip8");
        expect(g.clash).toMatch(/can't all be met/);
        continue;
      }
      expect(g.verdict, o.id).toBe("Ready to wire");
      expect(wrong(g.project), o.id).toEqual([]);
      expect(g.project.parts.length).toBeGreaterThan(project.parts.length);
      expect((g.project.rules ?? []).length).toBe(p.rules.length + (o.rules?.length ?? 0));
    }
  });
  it("a way to go on finds free names, and says what of the pattern is gone", () => {
    const p = patternById("light-and-button", PATTERNS)!;
    const { project } = beginPattern(p, catalogue);
    const more = applyEdit(
      project,
      { type: "addPart", part: "discrete/led-red", ref: "LED2", label: "Mine" },
      catalogue,
    );
    const g = goOn(more, p.onward[0], catalogue);
    expect(g.project.parts.filter((x) => x.part.startsWith("discrete/led")).map((x) => x.ref)).toEqual([
      "LED1",
      "LED2",
      "LED3",
    ]);
    expect(g.project.rules!.at(-1)!.do.ref).toBe("LED3");
    const less = applyEdit(project, { type: "removePart", ref: "SW1" }, catalogue);
    expect(goOn(less, p.onward[1], catalogue)).toMatchObject({
      project: less,
      clash: "this speaks of SW1 of the pattern, which is no longer in the project",
    });
  });
  it("the wires of a line pair lead somewhere, one that ends at nothing does not", () => {
    const { project } = beginPattern(patternById("two-boards-talking", PATTERNS)!, catalogue);
    const dangling = (p: typeof project) =>
      findings(circuitOf(p, catalogue)).flatMap((f) => (f.rule === "net.dangling" ? [f.at] : []));
    expect(dangling(project)).toEqual([]);
    const cut = applyEdit(project, { type: "removeLink", from: "M1.A", to: "M2.A" }, catalogue);
    const loose = [
      { type: "addPart", part: "discrete/resistor", ref: "R9" },
      { type: "addLink", link: { from: "M1.A", to: "R9.1" } },
    ] as const;
    expect(dangling(loose.reduce((p, e) => applyEdit(p, e, catalogue), cut))).toEqual([["M1.A", "R9.1"]]);
  });
  it("headers are read as the pattern takes them, as yours reads, or not at all", () => {
    const p = patternById("door-and-sound", PATTERNS)!;
    const look = toLookAt(beginPattern(p, catalogue).project, catalogue);
    expect(look.map((x) => x.ref)).toEqual(["M1"]);
    expect(look[0]!.prints.length).toBeGreaterThan(1);
    const other = look[0]!.prints[1]!.id;
    const print = (looked: Record<string, string | null>) =>
      beginPattern(p, catalogue, { looked }).project.parts.find((x) => x.ref === "M1")!.print;
    expect(print({ M1: other })).toEqual({ id: other });
    expect(print({ M1: "no such" })).toBeUndefined();
    expect(print({ M1: null })).toBeUndefined();
    expect(beginPattern(p, catalogue, { looked: { M1: null } }).verdict).toBe("Can be wired: 1 risk to know");
  });
});

describe("patterns on breadboards", () => {
  // Placing takes half a second each: some of them here, all with the whole set.
  const few = PATTERNS.filter((_, i) => process.env.ALL === "1" || i % 6 === 3);
  it.each(few.map((p) => [p.id, p] as const))("%s: placed, still ready, and its steps name holes", (_n, p) => {
    const placed = placedAsBuilt(beginPattern(p, catalogue).project, catalogue);
    expect(placed.breadboard?.by).toBe("plan");
    expect(wrong(placed)).toEqual([]);
    const rows = runSheet(circuitOf(placed, catalogue));
    expect(rows.filter((r) => r.holeA || r.holeB).length).toBeGreaterThan(2);
  });
});

const TRIED: Tried[] = ["sketch", "micropython", "avr-c"];

describe("the programs of patterns", () => {
  it.each(ALL)("%s: fits a target, and runs with a contact pressed now and then", (_n, p, board) => {
    const c = circuitOf(beginPattern(p, catalogue, { board }).project, catalogue);
    const target = TRIED.find((t) => TARGETS.find((x) => x.id === t)!.unfit(c) === null)!;
    expect(target).toBeDefined();
    for (const host of c.netlist.expanded.hosts) {
      const stage = stageOf(c, host, target);
      const driven = new Map<string, number>();
      const program = programOf(c, host, target, {
        ...stage,
        drive(ref, pin, level, now) {
          driven.set(ref, (driven.get(ref) ?? 0) + 1);
          stage.drive(ref, pin, level, now);
        },
      });
      const contacts = c.project.parts.filter((x) => x.ref.startsWith("SW")).map((x) => x.ref);
      program.run(1000);
      for (const [k, ref] of contacts.entries()) {
        stage.press(ref, true);
        program.run(1500 + 1000 * k);
        stage.press(ref, false);
        program.run(2000 + 1000 * k);
      }
      program.run(7000);
      // The smallest chips have no console.
      if (c.netlist.instance(host)!.part.id !== "chip/attiny85-dip8")
        expect(program.said.some((s) => s.line.includes("running"))).toBe(true);
      // What a contact works without a bus between has moved.
      for (const r of p.rules)
        if ("is" in r.when && r.when.ref.startsWith("SW") && /^LED/.test(r.do.ref) && host === "B1")
          expect(driven.get(r.do.ref), `${r.do.ref} in ${p.id}`).toBeGreaterThan(0);
    }
  });
});

describe("the bench of patterns", () => {
  it.each(PATTERNS.map((p) => [p.id, p] as const))("%s: checks are predicted and a fault is found", (_n, p) => {
    const c = circuitOf(beginPattern(p, catalogue).project, catalogue);
    const list = checklist(c);
    expect(list.length).toBeGreaterThan(5);
    const r = reasonOf(c);
    const sound = r.signature(r.singles[0]!);
    const told = r.singles.slice(1).filter((h) => r.signature(h) !== sound);
    expect(told.length).toBeGreaterThan(10);
    expect(levelsOf(c)).toContain("visible");
    const dealt = deal(c, "visible", 7)!;
    const hidden = r.singles.find((h) => h.faults[0] === dealt.faults[0])!;
    const f = find(r, hidden, { wrong: true });
    expect(f.first).toBe(true);
    expect(f.steps).toBeLessThanOrEqual(3 * Math.max(1, bound(r, told)));
  });
});
