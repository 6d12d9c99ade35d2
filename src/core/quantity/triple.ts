/** A value with its spread. Every data-sheet number that varies is carried as minimum, typical and maximum. */
export interface Triple {
  min: number;
  typ: number;
  max: number;
}

/** A value without spread. */
export const exactly = (v: number): Triple => ({ min: v, typ: v, max: v });
/** A value with a symmetric relative tolerance, `within(5, 0.05)` = 4.75 … 5.25. */
export const within = (v: number, tolerance: number): Triple => ({
  min: v * (1 - tolerance),
  typ: v,
  max: v * (1 + tolerance),
});
