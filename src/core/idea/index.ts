/** From an idea to a parts list: what people say, things they want, ways to do them, and the project that comes of it. */
export * from "./types";
export * from "./read";
export * from "./ways";
export * from "./build";
