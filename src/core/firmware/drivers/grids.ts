import { codeText } from "../pins";
import type { DriverPart } from "../types";

/** The address table of a grid: for each key or light, the index of its two lines. */
export interface GridTable {
  rows: string[];
  cols: string[];
  places: { a: number; b: number; name: string }[];
}

/** Lines and places of a part with addresses, lines by their constants. Rings have rows only: both lines are among them. */
export function gridTable(p: DriverPart): GridTable {
  const labels = (prefix: RegExp) => p.inst.part.pins.filter((x) => x.need && prefix.test(x.label)).map((x) => x.label);
  const [rows, cols] = [labels(/^[RL]\d/), labels(/^C\d/)];
  const places = (p.inst.part.addresses ?? []).map((x) => ({
    a: rows.indexOf(x.a),
    b: (cols.length ? cols : rows).indexOf(x.b),
    name: codeText(x.name),
  }));
  return { rows: rows.map((l) => p.pin(l)), cols: cols.map((l) => p.pin(l)), places };
}

const list = (items: readonly (string | number)[]) => items.join(", ");

/** Tables of a grid for a sketch: `ID_rows`, `ID_cols`, `ID_place[k][2]`, `ID_name[k]`. */
export function sketchTables(p: DriverPart): string {
  const t = gridTable(p);
  const id = p.id;
  return [
    `// Which pair of lines is which, from the wiring plan.`,
    `static const uint8_t ${id}_rows[] = {${list(t.rows)}};`,
    ...(t.cols.length ? [`static const uint8_t ${id}_cols[] = {${list(t.cols)}};`] : []),
    `static const uint8_t ${id}_place[][2] = {${t.places.map((x) => `{${x.a}, ${x.b}}`).join(", ")}};`,
    `static const uint8_t ${id}_count = ${t.places.length};`,
  ].join("\n");
}

/** The same for MicroPython. */
export function pythonTables(p: DriverPart): string {
  const t = gridTable(p);
  const pin = (c: string) => `pins.${c}`;
  return [
    `# Which pair of lines is which, from the wiring plan.`,
    `${p.id}_rows = [Pin(x) for x in (${t.rows.map(pin).join(", ")},)]`,
    ...(t.cols.length ? [`${p.id}_cols = [Pin(x) for x in (${t.cols.map(pin).join(", ")},)]`] : []),
    `${p.id}_place = (${t.places.map((x) => `(${x.a}, ${x.b})`).join(", ")},)`,
  ].join("\n");
}

/** Names of the places as string literals. */
export const placeNames = (p: DriverPart) =>
  gridTable(p)
    .places.map((x) => `"${x.name}"`)
    .join(", ");
