import { startThread, type Answer } from "./thread";

/** A model in LP format worked out in a thread; waits for the answer. `gone` ends it early. */
export function prove(lp: string, gone?: AbortSignal): Promise<Answer> {
  const thread = startThread(lp);
  if (!thread) return Promise.resolve({ says: "unknown" });
  return new Promise((resolve) => {
    const end = (a: Answer) => {
      thread.stop();
      resolve(a);
    };
    thread.port.once("message", end);
    gone?.addEventListener("abort", () => end({ says: "unknown" }), { once: true });
    thread.port.ref();
  });
}
