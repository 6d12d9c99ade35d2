import { wrap, type Remote } from "comlink";
import type { CoreApi } from "@/workers/api";

let remote: Remote<CoreApi> | undefined;

/** The computation, in its worker. Started on first use, kept for the life of the page. */
export function core(): Remote<CoreApi> {
  remote ??= wrap<CoreApi>(new Worker(new URL("../../workers/core.worker.ts", import.meta.url), { type: "module" }));
  return remote;
}
