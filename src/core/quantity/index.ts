/** Units, preferred numbers, spreads and the catalogue's small arithmetic. */
export * from "./eseries";
export * from "./units";
export * from "./triple";
export * from "./expression";
export { count } from "./count";
export * from "./number-words";
