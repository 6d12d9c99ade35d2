import type { FaultKind } from "../types";
import { named } from "../around";

export const otherProgram: FaultKind = {
  id: "other-program",
  name: "a program of another plan",
  often: 1,
  because: "the plan was changed after the program was uploaded",
  minutes: 2,
  find: (laid) =>
    laid.c.netlist.expanded.hosts.map((host) => ({
      id: host,
      at: [host],
      says: `${named(laid, host)} runs a program of another plan than this one`,
      mend: "Upload the program of this plan again.",
      change: { otherProgram: host },
    })),
};
