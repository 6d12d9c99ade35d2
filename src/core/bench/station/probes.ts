import type { Circuit } from "../../circuit";
import { findPin, type Part, type Pin } from "../../parts/catalogue";
import { splitEnd } from "../../project";

/** A row of pins with the places where the probes go. */
export interface ProbeRow {
  /** What the row is called: a header's name, or nothing for a part with one row. */
  says: string;
  /** Whether the row goes on before and after what is drawn. */
  before: boolean;
  after: boolean;
  pins: { label: string; n: number; probe: "red" | "black" | null }[];
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
  pins: Pin[];
}

function rowsOf(part: Part): Row[] {
  const pins = part.pins.filter((p) => p.role !== "cable");
  const headers = [...new Set(pins.flatMap((p) => (p.at ? [p.at.header] : [])))];
  if (!headers.length) return [{ says: "", pins }];
  return headers.map((h) => ({
    says: h,
    pins: pins.filter((p) => p.at?.header === h).sort((a, b) => a.at!.index - b.at!.index),
  }));
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
    const { part, label } = mine[0]!.inst;
    const words: string[] = [];
    const rows = rowsOf(part).flatMap((row): ProbeRow[] => {
      const at = mine.flatMap((w) => {
        const i = row.pins.indexOf(w.def);
        return i < 0 ? [] : [{ i, w }];
      });
      if (!at.length) return [];
      for (const { i, w } of at)
        words.push(
          `${w.probe}: ${w.def.label}${row.pins.length > 4 ? `, the ${nth(i + 1)} of ${row.pins.length}${row.says ? ` on ${row.says}` : ""}` : ""}`,
        );
      const lo = Math.max(0, Math.min(...at.map((x) => x.i)) - AROUND);
      const hi = Math.min(row.pins.length, Math.max(...at.map((x) => x.i)) + AROUND + 1);
      const part1 = row.pins.slice(lo, hi);
      return [
        {
          says: row.says,
          before: lo > 0,
          after: hi < row.pins.length,
          pins: part1.map((p, k) => ({
            label: p.label,
            n: lo + k + 1,
            probe: at.find((x) => x.i === lo + k)?.w.probe ?? null,
          })),
        },
      ];
    });
    return { ref, label, name: part.name, rows, words };
  });
}
