import type { Part, PartInput } from "../../parts/catalogue";
import { evaluate } from "../../quantity";
import { gridResistor, ringResistor } from "./resistor";
import { charlieAddresses, charlieLines, gridAddresses, gridSize, type Address } from "./addresses";

export type GridKind = "key-grid" | "key-grid-diodes" | "light-grid" | "light-ring";

/** What a grid is made of: the part that is repeated, with the names of its places. */
export interface GridAsk {
  kind: GridKind;
  /** The button or light that it is made of. */
  of: Part;
  names: string[];
  /** The board's logic voltage and what one pin likes to carry, volts and amperes; for the resistors of lights. */
  V: number;
  pin_A: number;
  /** What one light shall have, amperes. */
  I: number;
}

const count = (n: number, prefix: string) => Array.from({ length: n }, (_, i) => `${prefix}${i + 1}`);

function pins(kind: GridKind, rows: string[], cols: string[]): PartInput["pins"] {
  if (kind === "light-ring") return rows.map((label) => ({ label, role: "passive", need: { kind: "digital-io" } }));
  const keys = kind.startsWith("key");
  return [
    ...rows.map((label) => ({
      label,
      role: "passive" as const,
      need: { kind: "digital-out" as const },
    })),
    ...cols.map((label) => ({
      label,
      role: "passive" as const,
      need: { kind: keys ? ("digital-in" as const) : ("digital-out" as const) },
    })),
  ];
}

const NAMES: Record<GridKind, (n: number, lines: string) => [name: string, does: string]> = {
  "key-grid": (n, l) => [`Grid of ${n} keys, ${l}`, `${n} keys on crossing lines: fewer pins than keys`],
  "key-grid-diodes": (n, l) => [
    `Grid of ${n} keys with diodes, ${l}`,
    `${n} keys on crossing lines, any number at once`,
  ],
  "light-grid": (n, l) => [`Grid of ${n} lights, ${l}`, `${n} lights on crossing lines, a row at a time`],
  "light-ring": (n, l) => [
    `${n} lights between ${l} lines`,
    `${n} lights, each between two lines: the fewest pins without a chip`,
  ],
};

const NOTES: Record<GridKind, string[]> = {
  "key-grid": [
    "Each key joins its row to its column.",
    "Three keys in a corner make a fourth seem pressed: use diodes where that matters.",
  ],
  "key-grid-diodes": ["At each key a diode in series: its stripe towards the row.", "All diodes the same way round."],
  "light-grid": [
    "Each light: long leg to its row, short leg to its column.",
    "One row is lit at a time; a stopped program leaves one row on.",
  ],
  "light-ring": [
    "Each light: long leg to its first line, short leg to its second.",
    "All lights of one colour: another forward voltage steals the current.",
  ],
};

/**
 * A part made of many alike ones on common lines, with its table of addresses: wiring, drawing and program all read that
 * table. `taken` are ids that are in use.
 */
export function gridPart(a: GridAsk, taken: ReadonlySet<string>): PartInput & { addresses: Address[] } {
  const n = a.names.length;
  const ring = a.kind === "light-ring";
  const size = gridSize(n);
  const lines = ring ? charlieLines(n) : 0;
  const rows = ring ? count(lines, "L") : count(size.rows, "R");
  const cols = ring ? [] : count(size.cols, "C");
  const addresses = ring ? charlieAddresses(a.names, lines) : gridAddresses(a.names, size.cols);
  const shape = ring ? String(lines) : `${size.rows} × ${size.cols}`;
  const base = `module/${a.kind}-${n}`;
  let id = base;
  for (let k = 2; taken.has(id); k++) id = `${base}-${k}`;
  const [name, does] = NAMES[a.kind](n, shape);
  const led = a.of.elements.find((e) => e.kind === "led");
  const spread = (k: "min" | "typ") =>
    led?.kind === "led" ? evaluate(led.Vf[k], { current_mA: a.I * 1000 }) : k === "min" ? 1.8 : 2;
  const atOnce = ring ? Math.min(n, lines - 1) : size.cols;
  const ask = { V: a.V, pin_A: a.pin_A, I: a.I, Vf: { min: spread("min"), typ: spread("typ") }, atOnce };
  const { ohm } = ring ? ringResistor(ask) : gridResistor(ask);
  const keys = a.kind.startsWith("key");
  return {
    id,
    name,
    does,
    tags: keys ? ["keys", "matrix", "input"] : ["lights", "matrix", "led"],
    sources: [{ title: "Made in this project", where: `${n} × ${a.of.name} on common lines` }],
    certainty: a.of.certainty,
    notes: NOTES[a.kind],
    cautions: a.of.cautions,
    options: [],
    pins: pins(a.kind, rows, cols),
    elements: keys ? addresses.map((x) => ({ kind: "contact" as const, a: x.a, b: x.b })) : [],
    groups: ring
      ? [{ id: "lines", kind: "parallel", pins: Object.fromEntries(rows.map((l, i) => [`d${i}`, l])) }]
      : [
          {
            id: "matrix",
            kind: "matrix",
            pins: Object.fromEntries([
              ...rows.map((l, i) => [`row${i + 1}`, l]),
              ...cols.map((l, i) => [`col${i + 1}`, l]),
            ]),
          },
        ],
    companions: keys
      ? [
          {
            key: "pullUp",
            place: "pull",
            pin: cols[0]!,
            also: cols.slice(1),
            part: "discrete/resistor",
            compute: "internal-pull",
            needed: "required",
            because: "an open key gives no level: the chip's own pull-ups hold the columns high",
          },
        ]
      : [
          {
            key: "seriesResistor",
            place: "series",
            pin: (ring ? rows : cols)[0]!,
            also: (ring ? rows : cols).slice(1),
            part: "discrete/resistor",
            compute: "fixed",
            ohm,
            needed: "required",
            because: `one resistor a line: ${atOnce} lights at once share what a pin likes to carry`,
          },
        ],
    bringup: { driver: ring ? "light-ring" : keys ? "key-grid" : "light-grid" },
    body: { mm: [Math.max(20, size.cols * 12), Math.max(20, size.rows * 12)], solder: "leads" },
    addresses,
    contains: [
      { part: a.of.id, count: n },
      ...(a.kind === "key-grid-diodes" ? [{ part: "discrete/diode-1n4148", count: n }] : []),
    ],
  };
}
