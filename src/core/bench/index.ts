/** What a sound build shows, step by step; what faults show; which one it is. */
export * from "./steps";
