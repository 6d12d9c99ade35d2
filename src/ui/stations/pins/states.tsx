import type { CellState } from "@/core/plan/assign";

/** Every state of a crossing has a shape (see `.lattice` in the style sheet) and a word. */
export const STATES: Record<CellState, string> = {
  chosen: "planned here",
  locked: "planned and locked",
  fits: "would fit",
  caution: "fits, with a caution",
  taken: "in use by another",
  cannot: "cannot",
};

/** The shapes with their words, above the lattice. */
export function Legend() {
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-1" aria-label="Signs">
      {(Object.keys(STATES) as CellState[]).map((k) => (
        <li key={k} className="inline-flex items-center gap-1">
          <i className="glyph" data-state={k} aria-hidden /> {STATES[k]}
        </li>
      ))}
    </ul>
  );
}
