import type { Circuit } from "../../circuit";
import { wireTable } from "./wires";

export interface CutRow {
  colour: string;
  awg: number;
  /** What to cut: the way, and what bending and stripping take. */
  cut_cm: number;
  quantity: number;
  nets: string[];
}

/** A stranded wire is cut a tenth longer than its way. */
const SLACK = 1.1;
/** Five millimetres stripped, and as much to bend, at each end. */
const ENDS_CM = 2;

/** Wires that are cut for this build, from the same table as the run sheet; jumper wires of a kit are not. */
export function cutList(c: Circuit): CutRow[] {
  const rows = new Map<string, CutRow>();
  for (const w of wireTable(c)) {
    if (!w.kind.endsWith("cut")) continue;
    // From hole to hole the length has its two bends already.
    const cut_cm = w.kind === "solid, cut" ? w.length_cm : Math.ceil(w.length_cm * SLACK + ENDS_CM);
    const key = `${w.colour} ${w.awg} ${cut_cm}`;
    const row = rows.get(key) ?? { colour: w.colour, awg: w.awg, cut_cm, quantity: 0, nets: [] };
    row.quantity += w.quantity;
    row.nets.push(...w.nets.filter((n) => !row.nets.includes(n)));
    rows.set(key, row);
  }
  return [...rows.values()].sort((a, b) => a.awg - b.awg || b.cut_cm - a.cut_cm || a.colour.localeCompare(b.colour));
}
