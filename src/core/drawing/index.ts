/** Line drawings as data, and what makes files of them. */
export * from "./types";
export * from "./inks";
export * from "./svg";
export * from "./names";
