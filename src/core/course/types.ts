import { count } from "../quantity/count";

/** The most lessons that a course holds. */
export const MOST_LESSONS = 40;

/** A kind of part over the whole course. */
export interface CoursePart {
  key: string;
  part: string;
  name: string;
  value: string;
  box: BoxId;
  /** Needed at one time at one bench, at most, and in which lesson that is. */
  most: number;
  at: string;
  /** For all benches, with spares; what is owned; what is to be bought. */
  together: number;
  spares: number;
  owned: number;
  buy: number;
  /** Lessons that use it, by title. */
  lessons: string[];
  firstWeek: number;
}

/** What is ordered in a week, so that it is there when it is first wanted. Week 0 and before: before the course begins. */
export interface Order {
  /** The week in which it is ordered at the latest; counted from the first week of the course as 1. */
  week: number;
  /** The week in which it is first used. */
  for: number;
  lines: { number: number; what: string; part: string }[];
}

/** When to order, in words: weeks are counted from the first of the course. */
export const orderWords = (o: Order): string =>
  o.week >= 1
    ? `In week ${o.week}, for week ${o.for}`
    : `${count(1 - o.week, "week")} before the course begins, for week ${o.for}`;

export const BOXES = {
  boards: "Boards, supplies, cables",
  modules: "Modules",
  loose: "Loose parts",
  wires: "Wires",
} as const;
export type BoxId = keyof typeof BOXES;
/** What lies in a box of every bench. */
export interface BenchBox {
  id: BoxId;
  name: string;
  lines: { number: number; what: string }[];
}

/** Something that comes back after a lesson, with how it is seen to be sound. */
export interface Returned {
  number: number;
  what: string;
  test: string;
}
export interface LessonReturn {
  title: string;
  week: number;
  back: Returned[];
  /** What stays built, and is not collected. */
  stays: boolean;
}

export interface CourseView {
  title: string;
  benches: number;
  lessons: { title: string; week: number; stays: boolean; verdict: string; parts: number }[];
  parts: CoursePart[];
  orders: Order[];
  boxes: BenchBox[];
  returns: LessonReturn[];
  /** What would be bought if every lesson had a kit of its own. */
  apart: number;
  together: number;
}
