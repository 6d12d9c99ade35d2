/** Which of two values of a column comes first: numbers by their size, texts as people count in them (M2 before M10). */
export function inOrder(a: unknown, b: unknown): number {
  if (typeof a === "number" && typeof b === "number") return a === b ? 0 : a < b ? -1 : 1;
  return String(a ?? "").localeCompare(String(b ?? ""), "en", { numeric: true });
}
