import { xml } from "../words";
import { inkOf, patternOf } from "./inks";
import type { Drawing, Paint, Shape } from "./types";

const esc = xml;
const PAPER: Record<Exclude<Paint, object>, string> = {
  ink: "#1d1b18",
  soft: "#55514a",
  line: "#b9b0a0",
  paper: "#fffdf7",
  wash: "#efe9db",
};
const r = (n: number) => Math.round(n * 1000) / 1000;

export interface SvgOptions {
  /** Everything in ink, wires told by pattern. */
  plain?: boolean;
}

function attributes(s: Shape, o: SvgOptions): string {
  const paint = (p: Paint | undefined) =>
    p === undefined ? "none" : typeof p === "string" ? PAPER[p] : o.plain ? PAPER.ink : inkOf(p.wire);
  const wire = typeof s.stroke === "object" && o.plain ? patternOf(s.stroke.wire).map((x) => x * (s.width ?? 1)) : [];
  const dash = s.dash ?? wire;
  return [
    `fill="${s.kind === "text" ? paint(s.fill ?? "ink") : paint(s.fill)}"`,
    s.stroke && `stroke="${paint(s.stroke)}" stroke-width="${r(s.width ?? 1)}"`,
    dash.length && `stroke-dasharray="${dash.map(r).join(" ")}"`,
    s.opacity !== undefined && `opacity="${s.opacity}"`,
  ]
    .filter(Boolean)
    .join(" ");
}

function element(s: Shape, o: SvgOptions): string {
  const a = attributes(s, o);
  if (s.kind === "path") return `<path d="${s.d}" ${a}/>`;
  if (s.kind === "rect") return `<rect x="${r(s.x)}" y="${r(s.y)}" width="${r(s.w)}" height="${r(s.h)}" ${a}/>`;
  if (s.kind === "circle") return `<circle cx="${r(s.x)}" cy="${r(s.y)}" r="${r(s.r)}" ${a}/>`;
  const turn = s.turn ? ` transform="rotate(${s.turn} ${r(s.x)} ${r(s.y)})"` : "";
  return `<text x="${r(s.x)}" y="${r(s.y)}" font-size="${r(s.size)}" text-anchor="${s.anchor ?? "start"}"${s.bold ? ' font-weight="700"' : ""}${turn} ${a}>${esc(s.text)}</text>`;
}

/** A drawing as a stand-alone SVG; in true size where the drawing says how long its unit is. */
export function toSvg(d: Drawing, title: string, o: SvgOptions = {}): string {
  const size = d.unit_mm
    ? `width="${r(d.width * d.unit_mm)}mm" height="${r(d.height * d.unit_mm)}mm"`
    : `width="${r(d.width)}" height="${r(d.height)}"`;
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" viewBox="${r(d.x)} ${r(d.y)} ${r(d.width)} ${r(d.height)}" ${size} font-family="'Atkinson Hyperlegible Mono','DejaVu Sans Mono',monospace">
<title>${esc(title)}</title>
<rect x="${r(d.x)}" y="${r(d.y)}" width="100%" height="100%" fill="${PAPER.paper}"/>
${d.shapes.map((s) => element(s, o)).join("\n")}
</svg>
`;
}
