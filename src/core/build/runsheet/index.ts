export * from "./phases";
export * from "./rows";
export { takes, endKind } from "./ends";
export { provenLayout } from "./laid";
export { proveBuild } from "./prove";
