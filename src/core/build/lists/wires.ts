import type { Circuit } from "../../circuit";
import { houseRule } from "../../project";
import { sparesFor } from "./spares";
import { runSheet, type RunRow } from "../runsheet";

export interface WireRow {
  colour: string;
  length_cm: number;
  /** Ends in one order, `pin-socket`. */
  ends: string;
  /** Jumper wire of a kit, wire cut to length, or strong wire by gauge. */
  kind: string;
  awg: number;
  quantity: number;
  spares: number;
  nets: string[];
}

const THIN = 26;
const order = ["pin", "socket", "screw", "bare", "plug", "leg"];
export const endsOf = (r: Pick<RunRow, "endA" | "endB">): string =>
  [r.endA, r.endB].sort((a, b) => order.indexOf(a) - order.indexOf(b)).join("-");

function kindOf(r: RunRow, soldered: boolean): string {
  if (r.awg < THIN) return `${r.awg} AWG, cut`;
  if (r.holeA && r.holeB) return "solid, cut";
  if (soldered) return "stranded, cut";
  const ends = [r.endA, r.endB];
  return ends.every((e) => e === "pin" || e === "socket") ? "jumper wire" : "stranded, cut";
}

/** Every wire of the run sheet, alike ones together: by kind, colour, length and ends. */
export function wireTable(c: Circuit): WireRow[] {
  const rows = new Map<string, WireRow>();
  const soldered = houseRule(c.project, "firstBuild") === "solder";
  for (const r of runSheet(c)) {
    if (r.kind !== "wire") continue;
    const [ends, kind] = [endsOf(r), kindOf(r, soldered)];
    const key = [kind, r.colour, r.length_cm, ends].join("|");
    const row = rows.get(key) ?? {
      colour: r.colour,
      length_cm: r.length_cm,
      ends,
      kind,
      awg: r.awg,
      quantity: 0,
      spares: 0,
      nets: [],
    };
    row.quantity++;
    if (!row.nets.includes(r.net)) row.nets.push(r.net);
    row.spares = sparesFor("wires", row.quantity, c.project.kit);
    rows.set(key, row);
  }
  return [...rows.values()].sort(
    (a, b) =>
      a.kind.localeCompare(b.kind) ||
      a.colour.localeCompare(b.colour) ||
      a.length_cm - b.length_cm ||
      a.ends.localeCompare(b.ends),
  );
}
