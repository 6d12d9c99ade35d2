import { findings, verdict } from "../checks";
import { partsList, spareKind, sparesFor, type BomRow } from "../build";
import { circuitOf, type Circuit } from "../circuit";
import { partKind, type Catalogue } from "../parts/catalogue";
import type { Project } from "../project";
import type { Course } from "./schema";
import { testOf } from "./tests-by-part";
import {
  BOXES,
  type BenchBox,
  type BoxId,
  type CoursePart,
  type CourseView,
  type LessonReturn,
  type Order,
} from "./types";

interface Given {
  project: Project;
  week: number;
  stays: boolean;
  c: Circuit;
  rows: BomRow[];
}

const keyOf = (b: BomRow) => `${b.part} ${b.name} ${b.value}`;
const wordsOf = (b: Pick<BomRow, "name" | "value">) => [b.name, b.value].filter(Boolean).join(", ");

function boxOf(part: string): BoxId {
  if (part === "wire") return "wires";
  if (part === "cable" || part.startsWith("breadboard")) return "boards";
  const kind = part.includes("/") ? partKind(part) : "discrete";
  return kind === "board" || kind === "supply" ? "boards" : kind === "module" || kind === "chip" ? "modules" : "loose";
}

const spareOf = (part: string) => (part === "wire" ? "wires" : part.includes("/") ? spareKind(part) : null);

/** Pieces of each kind at one bench while a lesson runs: its own, and those of builds that stay together from before. */
function atOnce(lessons: readonly Given[], i: number): Map<string, number> {
  const built = [...lessons.slice(0, i).filter((l) => l.stays), lessons[i]!];
  const out = new Map<string, number>();
  for (const l of built) for (const b of l.rows) out.set(keyOf(b), (out.get(keyOf(b)) ?? 0) + b.quantity);
  return out;
}

/** All kinds of parts, with the most that is needed at a time and when that is. */
function unionOf(course: Course, lessons: readonly Given[]): CoursePart[] {
  const kit = { benches: course.benches, spares_percent: course.spares_percent };
  const found = new Map<string, CoursePart>();
  lessons.forEach((l, i) => {
    const now = atOnce(lessons, i);
    for (const b of l.rows) {
      const key = keyOf(b);
      const there =
        found.get(key) ??
        ({
          key,
          part: b.part,
          name: b.name,
          value: b.value,
          box: boxOf(b.part),
          most: 0,
          at: "",
          together: 0,
          spares: 0,
          owned: 0,
          buy: 0,
          lessons: [],
          firstWeek: l.week,
        } satisfies CoursePart);
      there.lessons.push(l.project.title);
      there.owned = Math.max(there.owned, b.boxed ? Infinity : (l.project.drawer.parts[b.part] ?? 0));
      if (now.get(key)! > there.most) {
        there.most = now.get(key)!;
        there.at = l.project.title;
      }
      found.set(key, there);
    }
  });
  const order = Object.keys(BOXES) as BoxId[];
  // What is owned is counted by kind of part: values of one kind share it.
  const taken = new Map<string, number>();
  return [...found.values()]
    .map((p) => {
      const together = p.most * course.benches;
      const spares = sparesFor(spareOf(p.part), together, kit);
      const owned = Math.min(Math.max(0, p.owned - (taken.get(p.part) ?? 0)), together + spares);
      if (p.owned !== Infinity) taken.set(p.part, (taken.get(p.part) ?? 0) + owned);
      return { ...p, together, spares, owned, buy: together + spares - owned };
    })
    .sort(
      (a, b) =>
        order.indexOf(a.box) - order.indexOf(b.box) || a.name.localeCompare(b.name) || a.value.localeCompare(b.value),
    );
}

/** What to order by which week: each kind when it is first wanted, and more of it when a later lesson wants more at a time. */
function ordersOf(course: Course, lessons: readonly Given[], parts: readonly CoursePart[]): Order[] {
  const kit = { benches: course.benches, spares_percent: course.spares_percent };
  const orders = new Map<number, Order>();
  for (const p of parts) {
    let have = p.owned;
    lessons.forEach((l, i) => {
      const n = atOnce(lessons, i).get(p.key) ?? 0;
      if (!n || !l.rows.some((b) => keyOf(b) === p.key)) return;
      const want = n * course.benches + sparesFor(spareOf(p.part), n * course.benches, kit);
      if (want <= have) return;
      const order = orders.get(l.week) ?? { week: l.week - course.lead_weeks, for: l.week, lines: [] };
      order.lines.push({ number: want - have, what: wordsOf(p), part: p.part });
      orders.set(l.week, order);
      have = want;
    });
  }
  return [...orders.values()].sort((a, b) => a.for - b.for);
}

const boxesOf = (parts: readonly CoursePart[]): BenchBox[] =>
  (Object.keys(BOXES) as BoxId[]).flatMap((id) => {
    const lines = parts.filter((p) => p.box === id).map((p) => ({ number: p.most, what: wordsOf(p) }));
    return lines.length ? [{ id, name: BOXES[id], lines }] : [];
  });

function returnsOf(lessons: readonly Given[]): LessonReturn[] {
  return lessons.map((l) => ({
    title: l.project.title,
    week: l.week,
    stays: l.stays,
    back: l.stays
      ? []
      : l.rows.map((b) => {
          const first = b.refs.map((r) => l.c.netlist.instance(r)).find((i) => i !== undefined);
          return { number: b.quantity, what: wordsOf(b), test: testOf(l.c, b.part, b.refs, first?.vars ?? {}) };
        }),
  }));
}

/**
 * Several projects on one kit: every kind of part with the most that is needed at a time, what to order by which week, what lies
 * in the boxes of a bench, and what comes back after each lesson with how it is tested. Lessons are taken in the order of their
 * weeks; a build that stays together keeps its parts to the end of the course.
 */
export function courseOf(course: Course, projects: ReadonlyMap<string, Project>, catalogue: Catalogue): CourseView {
  const lessons = course.lessons
    .flatMap((l, i) => {
      const project = projects.get(l.project);
      return project ? [{ l, i, project }] : [];
    })
    .sort((a, b) => a.l.week - b.l.week || a.i - b.i)
    .map(({ l, project }): Given => {
      const c = circuitOf(project, catalogue);
      return { project, week: l.week, stays: l.stays, c, rows: partsList(c) };
    });
  const parts = unionOf(course, lessons);
  const pieces = (list: readonly BomRow[]) => list.reduce((n, b) => n + b.quantity, 0);
  return {
    title: course.title,
    benches: course.benches,
    lessons: lessons.map((l) => ({
      title: l.project.title,
      week: l.week,
      stays: l.stays,
      verdict: verdict(l.c, findings(l.c)).words,
      parts: pieces(l.rows),
    })),
    parts,
    orders: ordersOf(course, lessons, parts),
    boxes: boxesOf(parts),
    returns: returnsOf(lessons),
    apart: lessons.reduce((n, l) => n + pieces(l.rows), 0),
    together: parts.reduce((n, p) => n + p.most, 0),
  };
}
