/** Wire colours on paper, by the names that people use for jumpers. */
const INK: Record<string, string> = {
  black: "#1d1b18",
  red: "#b3261e",
  orange: "#c4620a",
  yellow: "#a88a00",
  green: "#2d7a3a",
  blue: "#2457a6",
  violet: "#7a3f98",
  grey: "#77736b",
  white: "#a39d90",
  brown: "#7a4a21",
};
/** A colour is a person's word: only what stands in a table counts, not what every table has. */
const known = <T>(table: Record<string, T>, colour: string): T | undefined =>
  Object.hasOwn(table, colour) ? table[colour] : undefined;
export const inkOf = (colour: string) => known(INK, colour) ?? "#1d1b18";

/** A dash pattern for each colour, in wire widths, so that wires can be told apart on a black-and-white print. */
const PATTERN: Record<string, number[]> = {
  red: [6, 2],
  orange: [4, 2, 1, 2],
  yellow: [2, 2],
  green: [9, 2],
  blue: [1, 1.5],
  violet: [6, 1.5, 1, 1.5, 1, 1.5],
  grey: [4, 3],
  white: [1, 3],
  brown: [5, 2, 2, 2],
};
export const patternOf = (colour: string): number[] => known(PATTERN, colour) ?? [];
