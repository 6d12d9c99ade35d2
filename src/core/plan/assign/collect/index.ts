/** From a project to the plain assignment problem of one host. */
export * from "./followers";
export * from "./make";
export * from "./standing";
export { settledByHand } from "./hand";
