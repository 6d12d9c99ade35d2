import Papa from "papaparse";
import { csvCell } from "../words";

/** RFC 4180 text from rows; words never become formulas, rows or cells of their own: see `csvCell`. */
export function toCsv(fields: string[], rows: (string | number | null)[][]): string {
  const data = rows.map((r) => r.map((v) => (typeof v === "string" ? csvCell(v) : (v ?? ""))));
  return `${Papa.unparse({ fields, data }, { newline: "\r\n" })}\r\n`;
}
