import { findPin, type Reading } from "../parts/catalogue";
import type { Instance } from "../circuit/netlist";

const ORDINALS = ["first", "second", "third"];
const nth = (n: number) =>
  ORDINALS[n - 1] ?? `${n}${[11, 12, 13].includes(n % 100) ? "th" : (["th", "st", "nd", "rd"][n % 10] ?? "th")}`;

const DOUBLE_ROW_MM = 2.54;
const printed = (label: string) => label.replace(/\.\d+$/, "");

/** On a board or a bare chip: by header and count from the end where the counting starts, by number where it has one. */
function headerWords(inst: Instance, at: { header: string; index: number }, label: string): string {
  const board = inst.part.board!;
  const header = board.headers.find((h) => h.id === at.header);
  const from = board.countedFrom ?? "the USB end";
  const row = `${header?.side ?? at.header} ${inst.part.id.startsWith("chip/") ? "side" : "header"}`;
  const along = `${row}, ${nth(at.index)} from ${from}`;
  // Two rows side by side are numbered across: odd positions on one side, even ones on the other.
  if (board.rowPitch_mm === DOUBLE_ROW_MM)
    return `position ${2 * at.index - (header?.side === "left" ? 1 : 0)} of the double row (${along}), ${printed(label)}`;
  if (header && header.side !== "left" && header.side !== "right")
    return `${header.says.split(",")[0]}, printed ${printed(label)}`;
  if (inst.part.id.startsWith("chip/")) {
    const total = board.headers.reduce((s, h) => s + h.count, 0);
    return `pin ${header?.side === "right" ? total - at.index + 1 : at.index} (${along}), ${printed(label)}`;
  }
  return `${along}, printed ${printed(label)}`;
}

/** A plug's pin by number, and by what the person calls it. */
const withName = (words: string, called: string | undefined) => (called ? `${words}, ${called}` : words);

const ROWS = { sides: ["left row", "right row"], ends: ["first row", "second row"] } as const;

/** What a row of a header is called where it has two; nothing for the only one. */
export const rowName = ({ rows, edge }: Reading, r: number): string =>
  rows.length === 1 ? "" : (edge === "ends" ? ROWS.ends : ROWS.sides)[r]!;

/**
 * On a module: by its place in the header as printed. Until somebody has looked at the one in hand, by its label alone: a
 * place by a guess swaps supply and ground.
 */
function holeWords({ reading }: Instance, label: string): string {
  for (const [r, row] of reading.rows.entries()) {
    const k = row.findIndex((h) => h.pin === label);
    if (k < 0) continue;
    const place = `${nth(k + 1)} of ${row.length}`;
    const where = [rowName(reading, r), place].filter(Boolean).join(", ");
    return reading.confirmed
      ? `${where}, printed ${row[k]!.printed}`
      : `printed ${row[k]!.printed}: find it by its print, its place is not confirmed`;
  }
  return `printed ${printed(label)}`;
}

/** Where a pin is, in words: "left header, third from the USB end, printed D4" or "second of 4, printed VCC". */
export function pinWords(inst: Instance, label: string): string {
  const pin = findPin(inst.part, label);
  if (!pin) return label;
  if (pin.role === "cable") return "USB socket";
  if (pin.at && inst.part.board) return headerWords(inst, pin.at, pin.label);
  if (inst.part.body.header?.kind === "leads" && pin.says) return `${pin.says} (${pin.label})`;
  if (inst.part.pins.length < 3) return withName(pin.label, pin.called);
  return withName(holeWords(inst, pin.label), pin.called);
}
