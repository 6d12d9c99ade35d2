/** Small projects to begin with: what they are, and the plan that comes of one. */
export * from "./types";
export * from "./build";
export { PATTERNS } from "./list";
