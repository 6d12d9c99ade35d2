import { describe, expect, it } from "vitest";
import { partsList, sparesFor } from "../build";
import { circuitOf } from "../circuit";
import { beginPattern, patternById, PATTERNS } from "../patterns";
import type { Project } from "../project";
import { catalogue } from "../testing";
import { courseOf, CourseSchema, emptyCourse, type Course } from ".";

const of = (id: string) => beginPattern(patternById(id, PATTERNS)!, catalogue).project;
const IDS = ["light-and-button", "take-turns", "two-servos", "keypad"];
const projects = new Map<string, Project>(IDS.map((id) => [id, of(id)]));
const course = (more: Partial<Course> = {}): Course => ({
  ...emptyCourse("Ten weeks of light"),
  lessons: IDS.map((project, i) => ({ project, week: 1 + 2 * i, stays: false })),
  ...more,
});
const view = (more: Partial<Course> = {}) => courseOf(course(more), projects, catalogue);
const count = (id: string, part: string) =>
  partsList(circuitOf(projects.get(id)!, catalogue))
    .filter((b) => b.part === part)
    .reduce((n, b) => n + b.quantity, 0);

describe("a course on one kit", () => {
  it("has of each kind the most that one lesson needs at a time, not the sum", () => {
    const v = view();
    const board = v.parts.find((p) => p.part.startsWith("board/"))!;
    expect([board.most, board.lessons.length]).toEqual([1, 4]);
    const green = v.parts.find((p) => p.part === "discrete/led-green")!;
    expect(green.most).toBe(Math.max(...IDS.map((id) => count(id, "discrete/led-green"))));
    expect(v.together).toBeLessThan(v.apart);
    for (const p of v.parts) expect(p.most, p.name).toBeGreaterThan(0);
  });
  it("what stays built keeps its parts: later lessons need more", () => {
    const stays = view({ lessons: course().lessons.map((l) => ({ ...l, stays: l.project === "light-and-button" })) });
    const board = stays.parts.find((p) => p.part.startsWith("board/"))!;
    expect([board.most, board.at]).toEqual([2, projects.get("take-turns")!.title]);
    expect(stays.returns[0]).toMatchObject({ stays: true, back: [] });
    expect(stays.returns[1]!.back.length).toBeGreaterThan(3);
  });
  it("spares by kind for all benches, and what is owned counts", () => {
    const v = view({ benches: 12, spares_percent: { loose: 50, boards: 10 } });
    const red = v.parts.find((p) => p.part === "discrete/led-red")!;
    expect([red.together, red.spares]).toEqual([12, 6]);
    const board = v.parts.find((p) => p.part.startsWith("board/"))!;
    expect([board.together, board.spares, board.buy]).toEqual([12, 2, 14]);
    const owned = new Map(
      [...projects].map(([id, p]) => [id, { ...p, drawer: { ...p.drawer, parts: { "discrete/led-red": 7 } } }]),
    );
    const less = courseOf(course({ benches: 12, spares_percent: { loose: 50 } }), owned, catalogue);
    expect(less.parts.find((p) => p.part === "discrete/led-red")).toMatchObject({ owned: 7, buy: 11 });
  });
  it("orders come in time, once each, and more when a later lesson wants more", () => {
    const v = view({ lead_weeks: 3, benches: 10 });
    expect(v.orders.map((o) => [o.for, o.week])).toEqual([
      [1, -2],
      [3, 0],
      [5, 2],
      [7, 4],
    ]);
    const bought = new Map<string, number>();
    for (const o of v.orders) for (const l of o.lines) bought.set(l.what, (bought.get(l.what) ?? 0) + l.number);
    for (const p of v.parts) expect(bought.get([p.name, p.value].filter(Boolean).join(", ")) ?? 0, p.name).toBe(p.buy);
    const resistor = v.orders.filter((o) => o.lines.some((l) => l.part === "discrete/resistor"));
    expect(resistor.map((o) => o.for)).toEqual([1, 3]);
    expect(sparesFor("loose", 10, undefined)).toBe(2);
  });
  it("boxes hold each kind once, and the order of weeks counts, not that of the list", () => {
    const v = view();
    const lines = v.boxes.flatMap((b) => b.lines);
    expect(lines).toHaveLength(v.parts.length);
    expect(v.boxes.map((b) => b.id)).toEqual(["boards", "modules", "loose", "wires"]);
    const turned = view({ lessons: [...course().lessons].reverse() });
    expect(turned).toEqual(v);
  });
  it("what comes back has a test: the bench's own, or a meter's", () => {
    const v = view();
    const test = (title: string, what: RegExp) =>
      v.returns.find((r) => r.title === projects.get(title)!.title)!.back.find((b) => what.test(b.what))!.test;
    expect(test("light-and-button", /^Resistor/)).toBe("meter on ohms: 371 Ω to 410 Ω");
    expect(test("light-and-button", /red LED/)).toMatch(/diode mark/);
    expect(test("keypad", /^Keypad/)).toMatch(/^bring-up says that it works/);
    expect(test("two-servos", /adapter/i)).toMatch(/V between/);
    for (const r of v.returns) for (const b of r.back) expect(b.test, b.what).toMatch(/\w/);
  });
  it("a project that is gone is left out; a document that is none is refused with where", () => {
    const v = courseOf(course(), new Map([...projects].slice(0, 2)), catalogue);
    expect(v.lessons).toHaveLength(2);
    expect(courseOf(course({ lessons: [] }), projects, catalogue)).toMatchObject({ parts: [], orders: [], boxes: [] });
    const bad = CourseSchema.safeParse({ ...course(), benches: 900, lessons: [{ project: "x", week: 0 }] });
    expect(bad.success ? [] : bad.error.issues.map((i) => i.path.join("."))).toEqual(["benches", "lessons.0.week"]);
    expect(CourseSchema.safeParse({ ...course(), colour: "red" }).success).toBe(false);
  });
});
