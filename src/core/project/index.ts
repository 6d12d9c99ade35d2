/** The project document: schema, reading and migrating files, endpoints, and edits as pure functions. */
export * from "./schema";
export * from "./endpoint";
export * from "./load";
export * from "./place";
export * from "./edits";
export * from "./refs";
export * from "./rules";
export * from "./fingerprint";
export * from "./lengths";
export * from "./merge";
