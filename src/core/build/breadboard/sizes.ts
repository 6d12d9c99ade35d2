/** Breadboards by their points: rows of two times five holes, and rails along both long sides. */
export const SIZES = {
  "170": { points: 170, rows: 17, railHoles: 0, firstRailRow: 0, mm: [47, 35] },
  "400": { points: 400, rows: 30, railHoles: 25, firstRailRow: 1, mm: [83, 55] },
  "830": { points: 830, rows: 63, railHoles: 50, firstRailRow: 3, mm: [165, 55] },
} as const;
export type SizeId = keyof typeof SIZES;
export const SIZE_IDS = Object.keys(SIZES) as SizeId[];

/** Hole pitch in millimetres; positions on a board are counted in it. */
export const PITCH_MM = 2.54;
export type Half = "left" | "right";
export type Pole = "+" | "-";

export const LETTERS: Record<Half, string> = { left: "abcde", right: "fghij" };
/** Where a letter's column is, in pitches from column a; the trench is as wide as a chip. */
export const LETTER_X: Record<string, number> = { a: 0, b: 1, c: 2, d: 3, e: 4, f: 7, g: 8, h: 9, i: 10, j: 11 };
export const RAIL_X: Record<`${Half}${Pole}`, number> = { "left-": -4, "left+": -3, "right+": 14, "right-": 15 };
/** From the left edge of one board to that of the next beside it. */
export const BOARD_STEP = 24;

/** A hole of a row, or of a rail. Boards are counted from 0, rows and rail holes from 1. */
export type Hole =
  | { kind: "row"; board: number; letter: string; row: number }
  | { kind: "rail"; board: number; half: Half; pole: Pole; n: number };

export const halfOf = (letter: string): Half => (LETTERS.left.includes(letter) ? "left" : "right");

/** Beside which row a hole of a rail is: groups of five with a gap of one. */
export const railRow = (size: SizeId, n: number): number =>
  SIZES[size].firstRailRow + (n - 1) + Math.floor((n - 1) / 5);

/** Where a hole is, in pitches: across, along. */
export function holeAt(h: Hole, size: SizeId): { x: number; y: number } {
  const from = h.board * BOARD_STEP;
  return h.kind === "row"
    ? { x: from + LETTER_X[h.letter]!, y: h.row }
    : { x: from + RAIL_X[`${h.half}${h.pole}`], y: railRow(size, h.n) };
}

/** A hole's name: `c14`, `L+12`; on the second board `2:c14`. */
export function holeName(h: Hole): string {
  const own = h.kind === "row" ? `${h.letter}${h.row}` : `${h.half === "left" ? "L" : "R"}${h.pole}${h.n}`;
  return h.board ? `${h.board + 1}:${own}` : own;
}

/** Reads a hole's name; null when it is none, or not on these boards. */
export function readHole(text: string, boards: readonly SizeId[]): Hole | null {
  const m = /^(?:(\d):)?(?:([a-j])(\d{1,2})|([LR])([+-])(\d{1,2}))$/.exec(text);
  if (!m) return null;
  const board = m[1] ? Number(m[1]) - 1 : 0;
  const size = boards[board];
  if (!size) return null;
  const n = Number(m[3] ?? m[6]);
  if (n < 1 || n > (m[2] ? SIZES[size].rows : SIZES[size].railHoles)) return null;
  return m[2]
    ? { kind: "row", board, letter: m[2], row: n }
    : { kind: "rail", board, half: m[4] === "L" ? "left" : "right", pole: m[5] as Pole, n };
}
