/** A key of a grid, rows and columns counted from 0. */
export interface Key {
  row: number;
  col: number;
}

/**
 * What a scan of a key grid reads. Every row is driven by itself and the columns are looked at. Without diodes a pressed key
 * joins its row and its column both ways, so current also runs backwards through other pressed keys: a key reads as pressed
 * when its column can be reached from its row over any pressed keys. With a diode in each key only the key itself counts.
 */
export function scanKeys(rows: number, cols: number, pressed: readonly Key[], diodes: boolean): Key[] {
  const down = (r: number, c: number) => pressed.some((k) => k.row === r && k.col === c);
  const out: Key[] = [];
  for (let row = 0; row < rows; row++) {
    const reached = new Set<number>();
    const rowsHot = new Set([row]);
    for (let grew = true; grew;) {
      grew = false;
      for (const r of rowsHot)
        for (let c = 0; c < cols; c++)
          if (down(r, c) && !reached.has(c)) {
            reached.add(c);
            grew = true;
          }
      if (diodes) break;
      for (const c of reached)
        for (let r = 0; r < rows; r++)
          if (down(r, c) && !rowsHot.has(r)) {
            rowsHot.add(r);
            grew = true;
          }
    }
    for (const col of [...reached].sort((x, y) => x - y)) out.push({ row, col });
  }
  return out;
}

/** Keys that the scan takes for pressed though nobody presses them. */
export const ghostKeys = (rows: number, cols: number, pressed: readonly Key[], diodes: boolean): Key[] =>
  scanKeys(rows, cols, pressed, diodes).filter((k) => !pressed.some((p) => p.row === k.row && p.col === k.col));
