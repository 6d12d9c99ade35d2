export * from "./phases";
export * from "./rows";
export { takes, endKind } from "./ends";
