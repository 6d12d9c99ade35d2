import { create } from "qrcode";
import type { Drawing, Shape } from "../drawing";

/** The most letters that a code holds, at its lowest redundancy. */
export const MOST_LETTERS = 4296;
/** White round the code that readers need, in squares. */
const QUIET = 4;

/** A code of squares (ISO/IEC 18004) for a text, as a drawing of unit squares; null where the text is too long for one. */
export function codeOf(text: string, level: "L" | "M" = "L"): Drawing | null {
  let modules: { size: number; data: Uint8Array };
  try {
    ({ modules } = create(text, { errorCorrectionLevel: level }) as { modules: { size: number; data: Uint8Array } });
  } catch {
    return null;
  }
  const { size, data } = modules;
  const shapes: Shape[] = [{ kind: "rect", x: 0, y: 0, w: size + 2 * QUIET, h: size + 2 * QUIET, fill: "paper" }];
  // Squares beside each other are one: fewer shapes, and no hairlines between them.
  let d = "";
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      if (!data[y * size + x]) continue;
      let n = 1;
      while (x + n < size && data[y * size + x + n]) n++;
      d += `M${x + QUIET} ${y + QUIET}h${n}v1h-${n}z`;
      x += n;
    }
  return {
    x: 0,
    y: 0,
    width: size + 2 * QUIET,
    height: size + 2 * QUIET,
    shapes: [...shapes, { kind: "path", d, fill: "ink" }],
  };
}
