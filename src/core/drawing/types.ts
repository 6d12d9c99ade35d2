/**
 * A line drawing as plain data, so that the screen, an SVG file and a page of a PDF show the same. Lengths are in the
 * drawing's own unit, y goes down; `unit_mm` says how long the unit is where the drawing is true to scale.
 */
export type Paint = "ink" | "soft" | "line" | "paper" | "wash" | { wire: string };

interface Style {
  stroke?: Paint;
  fill?: Paint;
  width?: number;
  /** Lengths of dashes and gaps. */
  dash?: number[];
  opacity?: number;
  /** What it belongs to: a reference, a net or an end, so that a screen can light it. */
  of?: string;
}
export type Shape = Style &
  (
    | { kind: "path"; d: string }
    | { kind: "rect"; x: number; y: number; w: number; h: number }
    | { kind: "circle"; x: number; y: number; r: number }
    | {
        kind: "text";
        x: number;
        y: number;
        text: string;
        size: number;
        anchor?: "start" | "middle" | "end";
        bold?: boolean;
        /** Degrees, clockwise, round its own point. */
        turn?: number;
      }
  );
export interface Drawing {
  /** The area that is shown. */
  x: number;
  y: number;
  width: number;
  height: number;
  unit_mm?: number;
  shapes: Shape[];
}
