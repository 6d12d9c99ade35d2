import Papa from "papaparse";

/** RFC 4180 text from rows; cells that a spreadsheet would run as a formula are quoted with a leading apostrophe. */
export function toCsv(fields: string[], rows: (string | number | null)[][]): string {
  return `${Papa.unparse({ fields, data: rows.map((r) => r.map((v) => v ?? "")) }, { escapeFormulae: true, newline: "\r\n" })}\r\n`;
}
