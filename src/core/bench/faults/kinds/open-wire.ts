import type { FaultKind } from "../types";
import { told } from "../around";

/** From this length on a wire is pulled out or broken more often, centimetres. */
const LONG_CM = 30;

export const openWire: FaultKind = {
  id: "open-wire",
  name: "a wire that makes no contact",
  often: 1,
  because: "the most usual of all: not pushed in, broken inside, or forgotten",
  minutes: 1,
  find: (laid) =>
    laid.wires.map((w) => ({
      id: `${w.a} ${w.b}`,
      at: [w.a, w.b],
      says: w.cable
        ? `The cable between ${told(laid, w.a)} and ${told(laid, w.b)} is not in, or broken`
        : `The wire from ${told(laid, w.a)} to ${told(laid, w.b)} makes no contact, or is missing`,
      mend: w.cable ? "Push the plug in, or try another cable." : "Push both ends in; if it stays, take another wire.",
      times: w.cable ? 0.6 : w.cm !== null && w.cm > LONG_CM ? 1.6 : 1,
      change: { cut: [w.i] },
    })),
};
