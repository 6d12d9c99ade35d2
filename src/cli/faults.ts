import { faultsOf, type Fault } from "../core/bench/faults";
import { layOut } from "../core/bench/laid/laid";
import type { Circuit } from "../core/circuit";
import { Unusable } from "./io";

/** So many names are told when one does not fit. */
const TOLD = 12;

/** A fault by its name, or by the beginning of it: `open-wire M1.SDA`. */
export function faultNamed(c: Circuit, name: string): Fault {
  const all = faultsOf(layOut(c));
  const exact = all.find((f) => f.id === name);
  const fit = exact ? [exact] : all.filter((f) => f.id.startsWith(name));
  if (fit.length === 1) return fit[0]!;
  const word = name.split(" ")[0]!;
  const near = (fit.length ? fit : all.filter((f) => f.kind === word || f.at.some((a) => name.includes(a)))).slice(
    0,
    TOLD,
  );
  const kinds = [...new Set(all.map((f) => f.kind))].join(", ");
  throw new Unusable(
    `--fault "${name}": ${fit.length ? `${fit.length} faults begin so` : "there is no such fault"}; ${
      near.length ? `for instance:\n${near.map((f) => `  ${f.id}`).join("\n")}` : `kinds here: ${kinds}`
    }`,
  );
}
