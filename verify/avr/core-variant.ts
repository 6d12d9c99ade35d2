import fs from "node:fs";

/** The packaged AVR core and its bundled libraries. */
export const CORE = "/usr/share/arduino/hardware/arduino/avr";

const tables = (variant: string) => {
  const file = `${CORE}/variants/${variant}/pins_arduino.h`;
  return fs.existsSync(file) ? fs.readFileSync(file, "utf8") : "";
};

/**
 * The packaged core's folder of pin tables for a chip: of those with this many analogue inputs (any, when not given), the
 * one that most of the core's own boards use. The catalogue knows nothing of these folder names.
 */
export function coreVariant(mcu: string, analogInputs?: number): string {
  const mcus = new Map<string, Set<string>>();
  const variants = new Map<string, Set<string>>();
  for (const line of fs.readFileSync(`${CORE}/boards.txt`, "utf8").split("\n")) {
    const m = /^([^.#=]+)\.(?:.*\.)?build\.(mcu|variant)=(\S+)/.exec(line);
    if (!m) continue;
    const into = m[2] === "mcu" ? mcus : variants;
    into.set(m[1]!, (into.get(m[1]!) ?? new Set()).add(m[3]!));
  }
  const votes = new Map<string, number>();
  for (const [board, chips] of mcus)
    if (chips.has(mcu)) for (const v of variants.get(board) ?? []) votes.set(v, (votes.get(v) ?? 0) + 1);
  const fitting = [...votes].filter(([v]) => {
    const count = /#define\s+NUM_ANALOG_INPUTS\s+(\d+)/.exec(tables(v))?.[1];
    return count !== undefined && (analogInputs === undefined || Number(count) === analogInputs);
  });
  const best = fitting.sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]))[0];
  if (!best) throw new Error(`the packaged core has no pin tables for ${mcu} with ${analogInputs} analogue inputs`);
  return best[0];
}
