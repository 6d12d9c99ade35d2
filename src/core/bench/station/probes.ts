import type { Circuit } from "../../circuit";
import type { Instance } from "../../circuit/netlist";
import { rowName } from "../../build/position";
import { findPin, type Pin, type PrintHole } from "../../parts/catalogue";
import { splitEnd } from "../../project";

/** A row of pins with the places where the probes go. */
export interface ProbeRow {
  /** What the row is called: a header's name, or nothing for a part with one row. */
  says: string;
  /** Whether the row goes on before and after what is drawn. */
  before: boolean;
  after: boolean;
  /** `n`: its number in the row, where that is sure. */
  pins: { label: string; n: number | null; probe: "red" | "black" | null }[];
}
export interface ProbePart {
  ref: string;
  label: string;
  name: string;
  rows: ProbeRow[];
  /** Where the pin is, in words: `left header, 4th pin from the USB end`. */
  words: string[];
}

/** So many neighbours are drawn on each side of a pin on a long header. */
const AROUND = 3;
const nth = (n: number) =>
  `${n}${n % 10 === 1 && n !== 11 ? "st" : n % 10 === 2 && n !== 12 ? "nd" : n % 10 === 3 && n !== 13 ? "rd" : "th"}`;

interface Row {
  says: string;
  holes: PrintHole[];
  /** Whether a place in the row can be trusted: a header that nobody has looked at goes by its labels. */
  sure: boolean;
}

const shown = (pins: readonly Pin[]): PrintHole[] => pins.map((p) => ({ printed: p.label, pin: p.label }));

/** A header's rows as the one in hand reads; a board's by header; screws and sockets elsewhere on the board by themselves. */
function rowsOf({ part, reading }: Instance): Row[] {
  const pins = part.pins.filter((p) => p.role !== "cable");
  const headers = [...new Set(pins.flatMap((p) => (p.at ? [p.at.header] : [])))];
  if (headers.length)
    return headers.map((says) => {
      const mine = pins.filter((p) => p.at?.header === says).sort((a, b) => a.at!.index - b.at!.index);
      return { says, holes: shown(mine), sure: true };
    });
  const { rows, confirmed } = reading;
  const inRow = new Set(rows.flat().map((h) => h.pin));
  const elsewhere = pins.filter((p) => !inRow.has(p.label));
  return [
    ...rows.map((holes, r) => ({ says: rowName(reading, r), holes, sure: confirmed })),
    ...elsewhere.map((p) => ({ says: "", holes: shown([p]), sure: true })),
  ];
}

/** The place in a long row; by its label alone where the place is not sure. */
function placeIn({ sure, holes, says }: Row, i: number): string {
  if (!sure) return ", find it by its print";
  return holes.length > 4 ? `, the ${nth(i + 1)} of ${holes.length}${says ? ` on ${says}` : ""}` : "";
}

/** Where the two probes go: the parts concerned, their pins in printed order, and the place in words. */
export function probesOf(c: Circuit, from: string, to: string): ProbePart[] {
  const wanted = (
    [
      ["red", from],
      ["black", to],
    ] as const
  ).flatMap(([probe, end]) => {
    const { ref, pin } = splitEnd(end);
    const inst = end ? c.netlist.instance(ref) : undefined;
    const def = inst && findPin(inst.part, pin);
    return inst && def ? [{ probe, inst, def }] : [];
  });
  const refs = [...new Set(wanted.map((w) => w.inst.ref))];
  return refs.map((ref) => {
    const mine = wanted.filter((w) => w.inst.ref === ref);
    const { inst } = mine[0]!;
    const words: string[] = [];
    const rows = rowsOf(inst).flatMap((row): ProbeRow[] => {
      const at = mine.flatMap((w) => {
        const i = row.holes.findIndex((h) => h.pin === w.def.label);
        return i < 0 ? [] : [{ i, w }];
      });
      if (!at.length) return [];
      for (const { i, w } of at) words.push(`${w.probe}: ${row.holes[i]!.printed}${placeIn(row, i)}`);
      const lo = Math.max(0, Math.min(...at.map((x) => x.i)) - AROUND);
      const hi = Math.min(row.holes.length, Math.max(...at.map((x) => x.i)) + AROUND + 1);
      return [
        {
          says: row.says,
          before: lo > 0,
          after: hi < row.holes.length,
          pins: row.holes.slice(lo, hi).map((h, k) => ({
            label: h.printed,
            n: row.sure ? lo + k + 1 : null,
            probe: at.find((x) => x.i === lo + k)?.w.probe ?? null,
          })),
        },
      ];
    });
    return { ref, label: inst.label, name: inst.part.name, rows, words };
  });
}
