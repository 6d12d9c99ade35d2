/** What a part does to a line of its own, or to a converter: at once, or in so many microseconds. */
export type Reply =
  | { line: string; level: 0 | 1; in_us?: number }
  | { line: string; mV: number }
  /** It wants to look at a line again. */
  | { line: string; look_us: number };

/** A part of the bench wire by wire. Lines have the names of the part's pins; time is in microseconds. */
export interface WirePart {
  /** Lines that the program drives. */
  hears: readonly string[];
  /** Lines that a resistor pulls up while nobody drives them. */
  pulledUp?: readonly string[];
  start(): Reply[];
  change(line: string, level: 0 | 1, us: number): Reply[];
  look?(line: string, level: 0 | 1, us: number): Reply[];
  /** What a pulsed output does, where the language says it in numbers: hertz and share of 65536. */
  pulsed?(line: string, Hz: number, duty: number, us: number): void;
}
