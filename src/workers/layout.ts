import type { ELK } from "elkjs/lib/elk-api";
import type { LayOut } from "../core/build/loom";

let elk: Promise<ELK> | undefined;

/** In a browser the layout runs in a worker below this one, so that edits are never held up by a drawing. */
async function start(): Promise<ELK> {
  if (typeof Worker === "undefined") {
    const { default: Elk } = await import("elkjs/lib/elk.bundled.js");
    return new Elk();
  }
  const { default: Elk } = await import("elkjs/lib/elk-api");
  return new Elk({ workerFactory: () => new Worker(new URL("./elk.worker.ts", import.meta.url), { type: "module" }) });
}

export const layOut: LayOut = async (graph) => (await (elk ??= start())).layout(graph);
