import type { Driver, DriverPart } from "../types";
import { bringupInPython, PART_LIB, showInPython, stepsInPython } from "./python";
import { bringupInC, showInC, SKETCH_HELPERS, turnInC } from "./sketch";
import type { Device } from "./types";

/** A device as the programs are put together from it; `plain` does what its pins beside the bus need, and asks who it is. */
export function deviceDriver(d: Device, plain: Driver): Driver {
  const both = (a: string | undefined, b: string) => [a, b].filter(Boolean).join("\n");
  return {
    id: d.id,
    order: 20,
    proof: () => ({ kind: "test" }),
    sketch: {
      helpers: SKETCH_HELPERS,
      globals: (p) => turnInC(d, p),
      setup: (p) => plain.sketch?.setup?.(p) ?? "",
      bringup: (p) => both(plain.sketch?.bringup?.(p), bringupInC(d, p)),
      task: (p) => ({ turn: `${p.id}_turn()` }),
      show: (p) => showInC(d, p),
    },
    micropython: {
      lib: { path: "lib/part.py", text: PART_LIB },
      imports: ["from lib.part import *"],
      importsFor: (p: DriverPart) => plain.micropython?.importsFor?.(p) ?? [],
      setup: (p) => both(plain.micropython?.setup?.(p), stepsInPython(d, p)),
      bringup: (p) => both(plain.micropython?.bringup?.(p), bringupInPython(d, p)),
      task: (p) => ({ turn: `${p.id}.turn()` }),
      show: (p) => showInPython(d, p),
    },
  };
}
