import { partKind, printedPins, printsOf, type Part } from "../../parts/catalogue";
import { isSupply } from "../runsheet/ends";
import type { Instance } from "../../circuit/netlist";
import { PITCH_MM } from "./sizes";

/**
 * How a part sits on a breadboard. Pins by label, from top to bottom; null: a leg that is no pin of the plan; "": no leg, but
 * the hole there lies between legs and is of no use.
 */
export type Footprint =
  /** Two rows of pins across the trench, `apart` pitches from each other. */
  | { kind: "straddle"; left: (string | null)[]; right: (string | null)[]; apart: number; usb: "top" | "bottom" | null }
  /** One row of pins at the edge of the rows, the body outward over the rails. `down`: pin order on the right half. */
  | { kind: "strip"; pins: (string | null)[]; length: number; depth: number; down: boolean }
  /** Stiff legs side by side in one column of holes, `steps` rows apart. */
  | { kind: "legs"; pins: (string | null)[]; steps: number[] }
  /** Two legs that bend: from `least` to `most` pitches apart. */
  | { kind: "bridge"; pins: [string, string]; least: number; most: number }
  /** Does not go on a breadboard: it stands beside it and hangs on leads. */
  | { kind: "off"; why: string };

const off = (why: string): Footprint => ({ kind: "off", why });
const pitches = (mm: number) => Math.round(mm / PITCH_MM);

/** What still lies well on a breadboard, millimetres. */
const LONGEST = 46;
const DEEPEST = 28;
/** The widest pair of pin rows that leaves a free hole beside it. */
const WIDEST = 10;

/** Loose parts of two bending legs: how near and how far apart their holes may be, in pitches. */
const REACH: [RegExp, [number, number]][] = [
  [/resistor$/, [3, 8]],
  [/diode-1n4148$/, [3, 8]],
  [/diode-/, [4, 8]],
  [/reed$/, [6, 9]],
  [/capacitor$/, [2, 3]],
  [/electrolytic$/, [1, 3]],
  [/(ldr|thermistor-10k)$/, [1, 4]],
];

function boardPrint(part: Part): Footprint {
  const board = part.board!;
  const side = (s: string) => {
    const h = board.headers.find((x) => x.side === s);
    return h
      ? Array.from({ length: h.count }, (_, i) => {
          return part.pins.find((p) => p.at?.header === h.id && p.at.index === i + 1)?.label ?? null;
        })
      : [];
  };
  const apart = board.rowPitch_mm ? pitches(board.rowPitch_mm) : 0;
  if (!apart) return off("its sockets take pins: it stands beside the breadboard, with pin-to-pin wires");
  if (apart < 3) return off("its two rows are side by side: it stands beside the breadboard, with socket wires");
  if (apart > WIDEST - 1)
    return off(
      "it is so wide that it would cover every hole of a half: it stands beside the breadboard, with socket wires",
    );
  const chip = partKind(part.id) === "chip";
  const usb = chip || !part.pins.some((p) => p.role === "cable") ? null : board.countedFrom ? "bottom" : "top";
  return { kind: "straddle", left: side("left"), right: side("right"), apart, usb };
}

/** Chips count down the left side and up the right. */
function dip(pins: string[], apart: number): Footprint {
  const half = pins.length / 2;
  return { kind: "straddle", left: pins.slice(0, half), right: pins.slice(half).reverse(), apart, usb: null };
}

/** A module with a row of pins along each side stands across the trench, where it is known how far they are apart. */
function twoRows({ rows, rowPitch_mm }: Instance["reading"]): Footprint | null {
  const [left, right] = rows.map((row) => row.map((h) => h.pin));
  if (!rowPitch_mm || !left || !right || left.length !== right.length) return null;
  const apart = pitches(rowPitch_mm);
  if (apart < 3 || apart > WIDEST - 1) return null;
  return { kind: "straddle", left, right, apart, usb: null };
}

const NO_FIT = off("its legs do not fit the pitch: it hangs on leads");

function legs(pins: (string | null)[]): Footprint {
  return pins.length <= 4 ? { kind: "legs", pins, steps: pins.slice(1).map(() => 1) } : NO_FIT;
}

/** A chip or a part with legs of its own, as the one in hand reads. */
function readLegs({ reading }: Instance): Footprint {
  return reading.rows.length === 1 ? legs(reading.rows[0]!.map((h) => h.pin)) : (twoRows(reading) ?? NO_FIT);
}

function loosePrint(i: Instance): Footprint {
  const { part } = i;
  const pins = part.pins.map((p) => p.label);
  const kind = part.body.header!.kind;
  if (kind !== "leads") return off("its contacts are no pins: it hangs on leads");
  if (printsOf(part).length) return readLegs(i);
  if (part.id === "discrete/button")
    // Four legs, of which two that stand diagonally are used.
    return { kind: "straddle", left: [pins[0]!, "", null], right: [null, "", pins[1]!], apart: 3, usb: null };
  if (/digit-7seg/.test(part.id)) return dip(pins, 6);
  if (part.id === "discrete/potentiometer") return { kind: "legs", pins, steps: [2, 2] };
  if (pins.length === 2) {
    const reach = REACH.find(([test]) => test.test(part.id))?.[1];
    if (reach) return { kind: "bridge", pins: [pins[0]!, pins[1]!], least: reach[0], most: reach[1] };
    if (/led-/.test(part.id)) return { kind: "legs", pins, steps: [1] };
    return off("its legs are too thick for a breadboard: it hangs on leads");
  }
  return legs(pins);
}

function modulePrint(i: Instance): Footprint {
  const { part } = i;
  const { header, mm } = part.body;
  if (!header) return off("it has no pins: it hangs on leads");
  if (header.kind === "leads") return loosePrint(i);
  if (header.kind !== "male") return off("its contacts are no pins: it hangs on leads");
  if (Math.abs(header.pitch_mm - PITCH_MM) > 0.05) return off("its pins are not 2.54 mm apart: it hangs on leads");
  const { rows, edge } = i.reading;
  const pins = rows[0]!.map((h) => h.pin);
  if (header.rows === 2 || rows.length === 2)
    return (
      (rows.length === 2 && twoRows(i.reading)) || off("its pins stand in two rows or at two ends: it hangs on leads")
    );
  // Pins that only other prints have are not on this board; all others that are not in the row are somewhere else on it.
  const known = printedPins(part);
  const elsewhere = part.pins.some((p) => p.role !== "cable" && !pins.includes(p.label) && !known.has(p.label));
  if (elsewhere) return off("it has pins or screws on several sides: it hangs on leads");
  const row = (pins.length - 1) * PITCH_MM;
  const length = row + 2 > Math.min(...mm) ? Math.max(...mm) : mm[0];
  const depth = length === mm[0] ? mm[1] : mm[0];
  if (length > LONGEST || depth > DEEPEST) return off("it is too large to lie on a breadboard: it hangs on leads");
  return { kind: "strip", pins, length: length / PITCH_MM, depth: depth / PITCH_MM, down: edge !== "top" };
}

/** On leads of this length a part is somewhere else, centimetres. */
const AWAY_CM = 30;

/** How an instance sits on a breadboard, from its body and the length of its leads; `off` with the reason when it can't. */
export function footprintOf(i: Instance, leads_cm = 0): Footprint {
  if (isSupply(i)) return off("a supply stands beside the breadboard");
  if (leads_cm >= AWAY_CM && !i.part.board) return off(`it is ${leads_cm} cm away: it hangs on leads`);
  if (i.part.board) return boardPrint(i.part);
  const kind = partKind(i.part.id);
  if (kind === "connector") return off("a connector hangs on leads");
  if (!i.part.body.header) return off("it has no pins: it hangs on leads");
  return kind === "discrete" ? loosePrint(i) : modulePrint(i);
}

/** The pins that stand in rows when a part does. */
export const seatedPins = (print: Exclude<Footprint, { kind: "off" }>): string[] =>
  (print.kind === "straddle" ? [...print.left, ...print.right] : print.pins).filter((p): p is string => !!p);
