import { codeOf } from "../rules/print";
import { givesOf, outName } from "../rules/resolve";
import type { DriverPart } from "../types";

/** A reading on the page: what it is called, and how the program has it. */
export interface PageRow {
  word: string;
  unit: string;
  /** Its whole number, and how many of its digits stand behind the point and are shown, as expressions of the language. */
  value: string;
  digits: number;
  shown: number;
  /** Whether there is a reading; always when absent. */
  fresh: string | undefined;
}

/** Letters that every reader has. */
export const ascii = (text: string) => text.replace(/[^\x20-\x7e]/g, "");

/** All readings of a program, each by a name of its own: in JSON the second of two alike would take the place of the first. */
export function pageRows(parts: readonly DriverPart[], target: "sketch" | "micropython"): PageRow[] {
  const taken = new Set<string>();
  return parts.flatMap((p) =>
    givesOf(p).flatMap((q): PageRow[] => {
      const code = codeOf(p, target);
      if (!code?.value) return [];
      const plain = ascii(`${p.label} ${q.word || outName(q)}`);
      const word = taken.has(plain) ? `${plain} (${p.ref})` : plain;
      taken.add(word);
      return [
        {
          word,
          unit: q.unit,
          value: code.value(p, q),
          digits: q.digits,
          shown: q.shown ?? q.digits,
          fresh: code.fresh?.(p),
        },
      ];
    }),
  );
}
