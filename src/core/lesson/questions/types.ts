import type { Circuit } from "../../circuit";
import type { LessonAim, LessonLevel } from "../../project";
import type { Question } from "../types";

export type Asked = Omit<Question, "aim">;
/** Questions of one aim about a plan, the most telling first; none where the plan has nothing of it. */
export interface Asker {
  aim: LessonAim;
  ask(c: Circuit, level: LessonLevel): Asked[];
}

/** The words of a level. */
export const at = <T>(level: LessonLevel, young: T, middle: T, old: T): T =>
  level === "7-11" ? young : level === "11-14" ? middle : old;

export const nameOf = (c: Circuit, ref: string): string => c.netlist.instance(ref)?.label ?? ref;
/** `M2.VCC` as a person calls it: `Beep, pin VCC`. */
export function endWords(c: Circuit, end: string): string {
  const [ref, ...pin] = end.split(".");
  return pin.length ? `${nameOf(c, ref!)}, pin ${pin.join(".")}` : end;
}
/** Milliamperes as people say them. */
export const mA = (A: number): string => {
  const m = A * 1000;
  return `${Math.abs(m) < 20 ? m.toFixed(1) : Math.round(m)} mA`;
};
/** A current as it is told: sums are made of told numbers, so that who adds them up gets the answer. */
export const toldA = (A: number): number => Number.parseFloat(mA(A)) / 1000;
/** Volts to a hundredth, as a meter shows them; sums are made of these. */
export const toldV = (V: number): number => Number(V.toFixed(2));
export const volts = (V: number): string => `${toldV(V)} V`;
