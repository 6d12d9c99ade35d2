import type { Drawing } from "./drawing";

/** A quantity that a sum asks for. Values are in base SI units. */
export interface Field {
  key: string;
  label: string;
  unit: string;
  /** What it is when nobody says otherwise. */
  value: number;
  min: number;
  max: number;
  /** Whole numbers only, such as how many lights. */
  whole?: boolean;
  /** Named values in place of a number. */
  choices?: { value: number; label: string }[];
}
export interface Answer {
  key: string;
  label: string;
  value: number;
  unit: string;
  /** The value that is built in: shown large. */
  main?: boolean;
}
export interface Owned {
  resistors_ohm: readonly number[];
  capacitors_F: readonly number[];
}
export interface SumDone {
  ok: true;
  answers: Answer[];
  /** The way to the answer, one formula with numbers a line. */
  steps: string[];
  warnings: string[];
  drawing: Drawing;
}
export type SumResult = SumDone | { ok: false; message: string };
export type Values = Readonly<Record<string, number>>;

/** A small sum of the bench: what it is for, what it asks, how it answers, and what it teaches. */
export interface Sum {
  id: string;
  name: string;
  says: string;
  /** For learners: what the part does, and what happens without it. */
  does: string;
  without: string;
  fields: Field[];
  compute(v: Values, owned: Owned): SumResult;
}
