import type { Item } from "./problem";
import { BOARD_STEP, LETTER_X, LETTERS, SIZES, type Half, type SizeId } from "./sizes";

/** Where a part sits: the row of its first pin, on which half, which way; for two bending legs also where the second one goes. */
export interface Spot {
  board: number;
  half: Half;
  row: number;
  /** The letter of the first pin's column, where the part's shape fixes it. */
  letter?: string;
  /** Upside down: pin 1 at the lower end. */
  turn: boolean;
  to?: { half: Half; row: number; letter?: string };
}
export type Spots = Record<string, Spot>;

/** A hole that a part takes: of one of its pins, or of a leg that belongs to no net. */
export interface Cell {
  pin: string | null;
  half: Half;
  row: number;
  letter: string;
  /** No leg stands there: the hole is only covered, and its row stays free. */
  covered?: boolean;
}
export interface Rect {
  x1: number;
  x2: number;
  y1: number;
  y2: number;
}
export interface Seat {
  cells: Cell[];
  body: Rect | null;
  /** Letters of each half that the body covers in its rows, its own pins not counted. */
  covers: Record<Half, string>;
}

const right = (x: number) => [...LETTERS.right].find((l) => LETTER_X[l] === x);
/** The letter of the right row when the left one stands in `letter`; undefined when it falls into the trench or outside. */
export const oppositeLetter = (letter: string, apart: number): string | undefined => right(LETTER_X[letter]! + apart);

/** Columns for parts on stiff legs: two such bodies fit side by side, and leave a hole beside each. */
export const LEG_LETTERS: Record<Half, string[]> = { left: ["d", "b"], right: ["g", "i"] };

/** Columns for parts on bending legs: beside others, or next to the trench when they lie across it. */
const MIDDLE: Record<Half, string> = { left: "c", right: "h" };
const INNER: Record<Half, string> = { left: "e", right: "f" };
/** Half the width of a lying resistor, in pitches. */
const BRIDGE = 0.48;

/** Left letters of a part across the trench, those that leave holes free on both halves first. */
export function straddleLetters(apart: number): string[] {
  const free = (l: string) => {
    const r = oppositeLetter(l, apart)!;
    return Math.min(LETTERS.left.indexOf(l), 4 - LETTERS.right.indexOf(r));
  };
  return [...LETTERS.left].filter((l) => oppositeLetter(l, apart)).sort((a, b) => free(b) - free(a));
}

/** The holes and the body of a part at a spot; null where it would stand outside the board. */
export function seat(item: Item, spot: Spot, sizes: readonly SizeId[]): Seat | null {
  const size = sizes[spot.board];
  if (!size) return null;
  const { rows } = SIZES[size];
  const inside = (r: number) => r >= 1 && r <= rows;
  const from = spot.board * BOARD_STEP;
  const { print } = item;
  if (print.kind === "straddle") {
    const letter = spot.letter ?? straddleLetters(print.apart)[0];
    const other = letter && oppositeLetter(letter, print.apart);
    if (!letter || !other) return null;
    const n = Math.max(print.left.length, print.right.length);
    if (!inside(spot.row) || !inside(spot.row + n - 1)) return null;
    // Turned round, the left row stands right, counted from below.
    const [l, r] = spot.turn ? [[...print.right].reverse(), [...print.left].reverse()] : [print.left, print.right];
    const column = (pins: (string | null)[], half: Half, at: string): Cell[] =>
      pins.map((pin, k) => ({
        pin: pin === "" ? null : pin,
        half,
        row: spot.row + k,
        letter: at,
        ...(pin === "" && { covered: true }),
      }));
    return {
      cells: [...column(l, "left", letter), ...column(r, "right", other)],
      body: {
        x1: from + LETTER_X[letter]! - 0.4,
        x2: from + LETTER_X[other]! + 0.4,
        y1: spot.row - 0.5,
        y2: spot.row + n - 0.5,
      },
      covers: {
        left: LETTERS.left.slice(LETTERS.left.indexOf(letter) + 1),
        right: LETTERS.right.slice(0, LETTERS.right.indexOf(other)),
      },
    };
  }
  if (print.kind === "strip") {
    const n = print.pins.length;
    if (!inside(spot.row) || !inside(spot.row + n - 1)) return null;
    const down = print.down === (spot.half === "right");
    const pins = down ? print.pins : [...print.pins].reverse();
    const letter = spot.half === "left" ? "a" : "j";
    const x = from + LETTER_X[letter]!;
    const middle = spot.row + (n - 1) / 2;
    const reach = Math.max(print.length, n) / 2;
    return {
      cells: pins.map((pin, k) => ({ pin, half: spot.half, row: spot.row + k, letter })),
      body: {
        x1: spot.half === "left" ? x - print.depth : x - 0.4,
        x2: spot.half === "left" ? x + 0.4 : x + print.depth,
        y1: middle - reach,
        y2: middle + reach,
      },
      covers: { left: "", right: "" },
    };
  }
  if (print.kind === "legs") {
    let at = spot.row;
    const letter = spot.letter && LETTERS[spot.half].includes(spot.letter) ? spot.letter : LEG_LETTERS[spot.half][0]!;
    const cells = print.pins.map((pin, k): Cell => {
      if (k) at += (spot.turn ? -1 : 1) * print.steps[k - 1]!;
      return { pin, half: spot.half, row: at, letter };
    });
    if (!cells.every((x) => inside(x.row))) return null;
    const x = from + LETTER_X[letter]!;
    const [y1, y2] = [Math.min(spot.row, at) - 0.6, Math.max(spot.row, at) + 0.6];
    return { cells, body: { x1: x - 0.9, x2: x + 0.9, y1, y2 }, covers: { left: "", right: "" } };
  }
  if (!spot.to || !inside(spot.row) || !inside(spot.to.row)) return null;
  const across = spot.half !== spot.to.half;
  const first = spot.letter ?? (across ? INNER : MIDDLE)[spot.half];
  const second = spot.to.letter ?? (across ? INNER[spot.to.half] : first);
  if (!LETTERS[spot.half].includes(first) || !LETTERS[spot.to.half].includes(second)) return null;
  const [xa, xb] = [LETTER_X[first]!, LETTER_X[second]!];
  return {
    cells: [
      { pin: print.pins[0], half: spot.half, row: spot.row, letter: first },
      { pin: print.pins[1], half: spot.to.half, row: spot.to.row, letter: second },
    ],
    body: {
      x1: from + Math.min(xa, xb) - (across ? 0 : BRIDGE),
      x2: from + Math.max(xa, xb) + (across ? 0 : BRIDGE),
      y1: Math.min(spot.row, spot.to.row) - (across ? BRIDGE : 0),
      y2: Math.max(spot.row, spot.to.row) + (across ? BRIDGE : 0),
    },
    covers: { left: "", right: "" },
  };
}

/** Whether the USB end of a board can be reached: it stands at an end of the breadboard. */
export function usbReachable(item: Item, spot: Spot, sizes: readonly SizeId[]): boolean {
  const { print } = item;
  if (print.kind !== "straddle" || !print.usb) return true;
  const n = Math.max(print.left.length, print.right.length);
  const atTop = (print.usb === "top") !== spot.turn;
  return atTop ? spot.row <= 2 : spot.row + n - 1 >= SIZES[sizes[spot.board]!].rows - 1;
}
