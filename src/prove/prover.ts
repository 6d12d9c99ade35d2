import { readLp, writeLp, type Proof, type Prover } from "../core/plan/assign";
import { answerOf, startThread } from "./thread";

/** HiGHS in a thread of its own beside our search: looked at between two slices of it, never waited for. */
export const threadProver: Prover = (p): Proof => {
  const thread = startThread(writeLp(p));
  return {
    look: () => {
      const a = thread && answerOf(thread.port);
      if (!a || a.says === "unknown") return null;
      if (a.says === "no plan") return "no plan";
      const choice = readLp(p, a.ones);
      return choice && { choice };
    },
    drop: () => thread?.stop(),
  };
};
