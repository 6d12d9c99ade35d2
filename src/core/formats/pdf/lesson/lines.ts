import { inner, INK, MARGIN, newPage, room, type Sheet } from "../sheet";

/** Empty lines to write on. */
export function writeLines(s: Sheet, n: number, gap = 20): void {
  for (let i = 0; i < n; i++) {
    if (room(s) < gap + 4) newPage(s);
    s.y -= gap;
    s.page.drawLine({
      start: { x: MARGIN + 12, y: s.y },
      end: { x: MARGIN + inner(s), y: s.y },
      thickness: 0.3,
      color: INK,
    });
  }
  s.y -= 8;
}
