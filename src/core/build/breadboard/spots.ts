import type { Item } from "./problem";
import { BOARD_STEP, LETTER_X, LETTERS, PITCH_MM, SIZES, type Half, type SizeId } from "./sizes";

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
  /** Only this hole, not what the part covers in the rows of its legs: an outline that reaches further. */
  alone?: boolean;
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

/** Its pins at a spot, with the room between them. */
function seatPins(item: Item, spot: Spot, sizes: readonly SizeId[]): Seat | null {
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

const pitches = (mm: number) => mm / PITCH_MM;
/** A rectangle by its middle and its sides. */
export const around = (x: number, y: number, w: number, h: number): Rect => ({
  x1: x - w / 2,
  x2: x + w / 2,
  y1: y - h / 2,
  y2: y + h / 2,
});
/** The smallest rectangle round two. */
export const both = (a: Rect, b: Rect): Rect => ({
  x1: Math.min(a.x1, b.x1),
  x2: Math.max(a.x2, b.x2),
  y1: Math.min(a.y1, b.y1),
  y2: Math.max(a.y2, b.y2),
});

/** Diameters of electrolytic capacitors by their value, microfarads to millimetres: what is sold for up to 25 V. */
const CAN_MM: [uF: number, mm: number][] = [
  [47, 5],
  [100, 6.3],
  [470, 8],
  [1000, 10],
  [2200, 13],
  [Infinity, 18],
];

/** Length and width of a part as it lies or stands there, millimetres. */
export function sizeOf(item: Pick<Item, "inst">): [number, number] {
  const uF = item.inst.vars.capacitance_uF;
  if (/electrolytic$/.test(item.inst.part.id) && uF !== undefined) {
    const d = CAN_MM.find(([most]) => uF <= most)![1];
    return [d, d];
  }
  return item.inst.part.body.mm;
}

/** The outline of a part over the holes: its body reaches beyond its rows both ways. */
function outline(item: Item, spot: Spot, at: Seat): Rect | null {
  if (!at.body) return null;
  const [long, short] = sizeOf(item).map(pitches) as [number, number];
  const [x, y] = [(at.body.x1 + at.body.x2) / 2, (at.body.y1 + at.body.y2) / 2];
  const { print } = item;
  if (print.kind === "straddle") {
    const rows = Math.max(print.left.length, print.right.length) - 1;
    // The side that spans both rows of pins lies across; where the data says neither, the pins tell.
    const turned = [
      [long, short],
      [short, long],
    ].find(([along, across]) => across! >= print.apart - 0.5 && along! >= rows - 0.5);
    return turned ? both(at.body, around(x, y, turned[1]!, turned[0]!)) : at.body;
  }
  if (print.kind === "legs") {
    // A knob stands behind its legs, towards the edge; everything else over them.
    if (/potentiometer$/.test(item.inst.part.id)) {
      const side = spot.half === "left" ? -1 : 1;
      return both(around(x, y, 1, long), around(x + (side * (short - 1)) / 2, y, short, long));
    }
    const legs = at.body.y2 - at.body.y1;
    return around(x, y, Math.max(short, 1), Math.max(long, legs));
  }
  if (print.kind === "bridge" && /electrolytic|capacitor|ldr|thermistor/.test(item.inst.part.id))
    return both(
      at.body,
      around(x, y, spot.half === spot.to?.half ? short : long, spot.half === spot.to?.half ? long : short),
    );
  return at.body;
}

/** Holes that a body lies on besides those of its own legs: of no use to anybody. */
function hidden(at: Seat, body: Rect, spot: Spot, rows: number): Cell[] {
  const own = new Set(at.cells.map((c) => `${c.row} ${c.letter}`));
  const mine = new Set(at.cells.map((c) => `${c.half} ${c.row}`));
  const from = spot.board * BOARD_STEP;
  const out: Cell[] = [];
  for (const half of ["left", "right"] as const)
    for (let row = Math.max(1, Math.ceil(body.y1 + 0.01)); row <= Math.min(rows, Math.floor(body.y2 - 0.01)); row++)
      for (const letter of LETTERS[half]) {
        const x = from + LETTER_X[letter]!;
        if (x <= body.x1 + 0.01 || x >= body.x2 - 0.01 || own.has(`${row} ${letter}`)) continue;
        if (mine.has(`${half} ${row}`) && at.covers[half].includes(letter)) continue;
        out.push({ pin: null, half, row, letter, covered: true, alone: true });
      }
  return out;
}

/** All letters of its row that a cell takes away from others, its own included. */
export const takenBy = (at: Seat, cell: Cell): string => cell.letter + (cell.alone ? "" : at.covers[cell.half]);

const seats = new WeakMap<Item, Map<SizeId, Map<number, Seat | null>>>();

const COLUMNS = LETTERS.left + LETTERS.right;
const place = (half: Half, row: number, letter?: string) =>
  ((half === "left" ? 0 : 1) * 128 + row + 32) * 12 + (letter ? COLUMNS.indexOf(letter) + 1 : 0);
/** One number for every spot of a size of board. */
const keyOf = (s: Spot) =>
  ((s.to ? place(s.to.half, s.to.row, s.to.letter) : 0) * 4096 + place(s.half, s.row, s.letter)) * 16 +
  s.board * 2 +
  (s.turn ? 1 : 0);

/** The holes and the body of a part at a spot, with all the holes that the body hides; null where it would stand outside the board. */
export function seat(item: Item, spot: Spot, sizes: readonly SizeId[]): Seat | null {
  const size = sizes[spot.board];
  if (!size) return null;
  let bySize = seats.get(item);
  if (!bySize) seats.set(item, (bySize = new Map()));
  let known = bySize.get(size);
  if (!known) bySize.set(size, (known = new Map<number, Seat | null>()));
  const plain =
    spot.row > -32 && spot.row < 96 && spot.board < 8 && (!spot.to || (spot.to.row > -32 && spot.to.row < 96));
  const key = keyOf(spot);
  const there = plain ? known.get(key) : undefined;
  if (there !== undefined) return there;
  const at = seatPins(item, spot, sizes);
  const body = at && outline(item, spot, at);
  const made = at && body ? { ...at, body, cells: [...at.cells, ...hidden(at, body, spot, SIZES[size].rows)] } : at;
  if (plain) known.set(key, made);
  return made;
}

/** Whether the USB end of a board can be reached: it stands at an end of the breadboard. */
export function usbReachable(item: Item, spot: Spot, sizes: readonly SizeId[]): boolean {
  const { print } = item;
  if (print.kind !== "straddle" || !print.usb) return true;
  const n = Math.max(print.left.length, print.right.length);
  const atTop = (print.usb === "top") !== spot.turn;
  return atTop ? spot.row <= 2 : spot.row + n - 1 >= SIZES[sizes[spot.board]!].rows - 1;
}
