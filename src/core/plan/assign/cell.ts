/** chosen: wired here · locked: wired here and held · fits: free and able · caution: able, with a hazard · taken: able, in use · cannot. */
export type CellState = "chosen" | "locked" | "fits" | "caution" | "taken" | "cannot";

export interface LatticeCell {
  state: CellState;
  why: string;
}

/** One letter a state, so that a row of crossings is a short string on its way from the worker. */
export const LETTER: Record<CellState, string> = {
  chosen: "c",
  locked: "l",
  fits: "f",
  caution: "!",
  taken: "t",
  cannot: "-",
};
const STATE = Object.fromEntries(Object.entries(LETTER).map(([s, l]) => [l, s])) as Record<string, CellState>;

/** A crossing of the lattice. */
export const cellOf = (
  view: { says: readonly string[] },
  row: { states: string; why: readonly number[] },
  column: number,
): LatticeCell => ({
  state: STATE[row.states[column]!]!,
  why: view.says[row.why[column]!]!,
});
