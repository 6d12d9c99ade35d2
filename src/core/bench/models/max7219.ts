import { onSpi } from "./on-spi";
import type { As, Model } from "./types";

interface Module {
  file: Map<number, number>;
  /** It showed rubbish when it was switched on. */
  flashed: boolean;
}
const ROWS = [1, 2, 3, 4, 5, 6, 7, 8];
/** A chain: the last two bytes stay in the module beside the board, those before them went on to the next one. */
function chain(as: As, is: (modules: Module[]) => Readonly<Record<string, number>>) {
  // Another program has left them in the test of all lights, dark otherwise, with rubbish in the rows.
  const modules = Array.from({ length: as.chain ?? 1 }, (): Module => ({
    flashed: false,
    file: new Map([
      [0x0f, 1],
      [0x0c, 0],
      [0x0b, 2],
      [0x09, 0x0f],
      [0x0a, 15],
      ...[1, 2, 3, 4, 5, 6, 7, 8].map((r) => [r, 0x5a] as const),
    ]),
  }));
  return onSpi(
    {
      reply: () => 0,
      end(heard) {
        modules.forEach((m, i) => {
          const lit = m.file.get(0x0c);
          const k = heard.length - 2 * (i + 1);
          if (k < 0) return;
          const register = heard[k]! & 0x0f;
          if (register) m.file.set(register, heard[k + 1]!);
          // What stood in it shows the moment it is switched on.
          const blank = m.file.get(0x09) === 0xff ? 0x0f : 0x00;
          if (!lit && m.file.get(0x0c)) m.flashed ||= ROWS.some((r) => m.file.get(r) !== blank);
        });
      },
    },
    { is: () => is(modules) },
  );
}
const runs = (m: Module) =>
  !m.flashed &&
  m.file.get(0x0f) === 0 &&
  (m.file.get(0x0c)! & 1) === 1 &&
  m.file.get(0x0b) === 7 &&
  m.file.get(0x0a)! < 8;

const CODE_B = "0123456789-EHLP ";
export const max7219Digits: Model = {
  part: "module/max7219-digits",
  worlds: [{}],
  within: { shows: 0 },
  wants: () =>
    [
      0, 7, -7, 12, -42, 12_345_678, -1_234_567, 98_765_432, 10, -100, 100, 1000, 10_000, 100_000, 1_000_000,
      10_000_000, -1_000_000,
    ].map((v) => [v, { shows: v }] as const),
  make: (_w, as) =>
    chain(as, (modules) => {
      const dark = (m: Module) => [8, 7, 6, 5, 4, 3, 2, 1].every((r) => (m.file.get(r)! & 15) === 15);
      const [first, ...others] = modules;
      const text = [8, 7, 6, 5, 4, 3, 2, 1].map((r) => CODE_B[first!.file.get(r)! & 15]).join("");
      const points = [1, 2, 3, 4, 5, 6, 7, 8].some((r) => first!.file.get(r)! & 0x80);
      const well =
        modules.every((m) => runs(m) && m.file.get(0x09) === 0xff) &&
        others.every(dark) &&
        !points &&
        /^ *-?\d+$/.test(text) &&
        !/-0/.test(text);
      return { shows: well ? Number(text) : NaN };
    }),
};

/** Rows are registers; the leftmost column is bit 7. Lit columns, counted from the board, all rows alike and without a gap. */
export const max7219Matrix: Model = {
  part: "module/max7219-matrix",
  worlds: [{}],
  within: { lit: 0 },
  wants: (as) => [0, 1, 8, 8 * (as.chain ?? 1), 5, 8 * (as.chain ?? 1) - 3].map((v) => [v, { lit: v }] as const),
  make: (_w, as) =>
    chain(as, (modules) => {
      const rows = [1, 2, 3, 4, 5, 6, 7, 8].map((r) =>
        modules.map((m) => m.file.get(r)!.toString(2).padStart(8, "0")).join(""),
      );
      const lit = rows[0]!.replace(/0/g, "").length;
      const well =
        modules.every((m) => runs(m) && m.file.get(0x09) === 0) &&
        rows.every((r) => r === rows[0]) &&
        /^1*0*$/.test(rows[0]!);
      return { lit: well ? lit : NaN };
    }),
};
