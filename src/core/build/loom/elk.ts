import type { LayOut } from ".";

/** The layout in this process: for the command line, the server and tests. Screens run it in a worker of its own. */
export const layOutHere: LayOut = async (graph) => {
  const { default: Elk } = await import("elkjs/lib/elk.bundled.js");
  return new Elk().layout(graph);
};
