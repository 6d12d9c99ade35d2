/** The exact solver over plain problems. */
export * from "./solve";
export * from "./legal";
export * from "./clash";
export * from "./best";
export * from "./counting";
export * from "./tidy";
export { helpWith, type Found, type Proof, type Prover } from "./prover";
