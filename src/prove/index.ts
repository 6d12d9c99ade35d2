/** A second solver for pins that our own search takes long over: HiGHS in a thread. For Node only. */
export { threadProver } from "./prover";
export { prove } from "./answer";
export type { Answer } from "./thread";
