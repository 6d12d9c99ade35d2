/** The house rules: both schools with pictures, what each costs and buys, and what it would change in a plan. */
export * from "./words";
export * from "./rules";
export * from "./effect";
