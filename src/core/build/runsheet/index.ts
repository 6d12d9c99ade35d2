export * from "./phases";
export * from "./row";
export * from "./rows";
export { takes, endKind, OWN_LEG } from "./ends";
export { layoutProven, provenLayout } from "./laid";
export { proveBuild } from "./prove";
