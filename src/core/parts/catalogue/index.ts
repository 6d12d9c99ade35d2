/** The part schema, its validation, options, look-up, summaries and search. The shipped data is in `shipped.ts`. */
export * from "./schema";
export * from "./kind";
export * from "./cells";
export * from "./talks";
export * from "./validate";
export * from "./catalogue";
export * from "./certainty";
export * from "./standing";
export * from "./roles";
export * from "./connector";
export * from "./options";
export * from "./print-schema";
export * from "./prints";
export * from "./summary";
export * from "./describe";
export * from "./compare";
export * from "./buskinds";
