import { createRequire } from "node:module";
import path from "node:path";
import { MessageChannel, receiveMessageOnPort, Worker, type MessagePort } from "node:worker_threads";

/** So long the second solver may work on one problem, seconds. */
const MOST_S = 10;

/** What it answers: the variables that are 1 in the cheapest plan, that there is none, or that it could not tell. */
export type Answer = { says: "plan"; ones: string[] } | { says: "no plan" } | { says: "unknown" };

// The thread runs from text, so that no bundler has to know of it.
const THREAD = `
const { workerData } = require("node:worker_threads");
const { port, lp, highs, most_s } = workerData;
const tell = (x) => port.postMessage(x);
Promise.resolve(require(highs)())
  .then((h) => {
    const r = h.solve(lp, { output_flag: false, time_limit: most_s, mip_rel_gap: 0, mip_abs_gap: 0 });
    if (r.Status === "Optimal")
      tell({ says: "plan", ones: Object.entries(r.Columns).filter(([, c]) => c.Primal > 0.5).map(([k]) => k) });
    else tell({ says: r.Status === "Infeasible" ? "no plan" : "unknown" });
  })
  .catch(() => tell({ says: "unknown" }));
`;

/** Where the solver is installed, seen from the app's folder or from the bundled command line; null when it is not. */
function solverPath(): string | null {
  for (const from of [path.join(process.cwd(), "package.json"), process.argv[1] ?? ""])
    try {
      return createRequire(path.resolve(from)).resolve("highs");
    } catch {
      // Looked for in the next place.
    }
  return null;
}

/** A thread that works on a model in LP format. Null where the solver is not installed. */
export function startThread(lp: string): { port: MessagePort; stop: () => void } | null {
  const highs = solverPath();
  if (!highs) return null;
  const { port1, port2 } = new MessageChannel();
  const worker = new Worker(THREAD, {
    eval: true,
    workerData: { port: port2, lp, highs, most_s: MOST_S },
    transferList: [port2],
  });
  worker.on("error", () => undefined);
  worker.unref();
  port1.unref();
  return {
    port: port1,
    stop: () => {
      port1.close();
      void worker.terminate();
    },
  };
}

/** Looks whether the thread has answered, without waiting. */
export const answerOf = (port: MessagePort): Answer | null =>
  (receiveMessageOnPort(port)?.message as Answer | undefined) ?? null;
