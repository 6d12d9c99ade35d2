/** Planted mistakes and sound projects, as data for the tests and for the handbook's examples. Not used by the product. */
export { cases } from "../rules/cases";
export { quiet } from "./quiet";
export type { Case } from "./build";
