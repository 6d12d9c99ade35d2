/** How sure the order of a header is, in words. */
export const PRINT_SURE = {
  high: "known to be sold like this",
  medium: "often sold like this",
  low: "seen, not often",
  assumed: "only assumed: nobody has looked",
} as const;
