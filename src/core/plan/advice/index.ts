/** What to do next: which board, and what helps when nothing fits. Every answer is really tried by the solver. */
export * from "./boards";
export * from "./remedies";
export * from "./settle";
export * from "./obey";
