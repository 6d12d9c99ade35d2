/** A plan as a line of letters and as a printed code; and back. */
export * from "./pack";
export * from "./code";
