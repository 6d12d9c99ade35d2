import { patternOf as pattern } from "@/core/drawing/inks";

/** Wire colours on screen: lines that show on both themes, and the small field beside the colour's name. */
const LINE: Record<string, string> = {
  black: "var(--ink)",
  red: "#c0392b",
  orange: "#cf6a12",
  yellow: "#b59500",
  green: "#2f8a42",
  blue: "#2f6ac4",
  violet: "#8a4cab",
  grey: "#8b877f",
  white: "#a89f8d",
  brown: "#8a572b",
};
const FIELD: Record<string, string> = {
  ...LINE,
  black: "#1d1b18",
  yellow: "#d0ac00",
  white: "#f4f0e6",
};
const known = (table: Record<string, string>, colour: string) =>
  Object.hasOwn(table, colour) ? table[colour] : undefined;
export const lineOf = (colour: string) => known(LINE, colour) ?? "var(--ink)";
export const patternOf = (colour: string) =>
  pattern(colour)
    .map((x) => x * 1.6)
    .join(" ") || undefined;

/** A field of the wire's colour, for beside its name: never alone. */
export function Swatch({ colour, size = 14 }: { colour: string; size?: number }) {
  return (
    <svg width={size} height={size} aria-hidden className="shrink-0">
      <rect
        x="0.5"
        y="0.5"
        width={size - 1}
        height={size - 1}
        fill={known(FIELD, colour) ?? "none"}
        stroke="currentColor"
      />
    </svg>
  );
}

/** A colour by its swatch and its name. */
export function Coloured({ colour }: { colour: string }) {
  return (
    <span className="inline-flex items-center gap-1">
      <Swatch colour={colour} />
      {colour}
    </span>
  );
}
