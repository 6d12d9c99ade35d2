/** The bench sums: small calculations for hook-ups, each usable inside a project and by itself. Adding one is one line here. */
import { debounceSum, i2cSum, optoSum, pullSum } from "./contacts";
import { dividerSum, sensorSum } from "./dividers";
import { ledSum } from "./led";
import { bjtSum, coilSum, decouplingSum, fetSum } from "./switches";
import type { Sum } from "./types";

export const SUMS: readonly Sum[] = [
  ledSum,
  bjtSum,
  fetSum,
  coilSum,
  dividerSum,
  sensorSum,
  pullSum,
  debounceSum,
  optoSum,
  decouplingSum,
  i2cSum,
];
export const sumById = (id: string | null) => SUMS.find((s) => s.id === id);
