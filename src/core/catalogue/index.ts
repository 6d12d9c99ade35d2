/** The part schema, its validation, options, look-up and search. The shipped data is in `shipped.ts`. */
export * from "./schema";
export * from "./validate";
export * from "./catalogue";
export * from "./options";
