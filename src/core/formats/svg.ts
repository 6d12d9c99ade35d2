import type { Loom, LoomBox, LoomPin, LoomTag } from "../wiring/loom";

const esc = (t: string) => t.replace(/[&<>"']/g, (ch) => `&#${ch.charCodeAt(0)};`).replace(/[^\x20-\uffff]/g, "");

/** Wire colours on paper, by the names that people use for jumpers. */
export const INK: Record<string, string> = {
  black: "#1d1b18",
  red: "#b3261e",
  orange: "#c4620a",
  yellow: "#a88a00",
  green: "#2d7a3a",
  blue: "#2457a6",
  violet: "#7a3f98",
  grey: "#77736b",
  white: "#a39d90",
  brown: "#7a4a21",
};
export const inkOf = (colour: string) => INK[colour] ?? "#1d1b18";

/** A dash pattern for each colour, so that wires can be told apart on a black-and-white print. */
export const PATTERN: Record<string, string> = {
  black: "",
  red: "9 2",
  orange: "6 2 1 2",
  yellow: "3 2",
  green: "12 3",
  blue: "1.5 2",
  violet: "9 2 1.5 2 1.5 2",
  grey: "5 3",
  white: "2 4",
  brown: "7 2 3 2",
};

export interface SvgOptions {
  /** Everything in ink, colours told by pattern. */
  plain?: boolean;
  /** Size in millimetres to fit into, instead of the drawing's own. */
  fit_mm?: [number, number];
}

const PAPER = "#fffdf7";
const DARK = "#1d1b18";
const SOFT = "#55514a";

function pin(p: LoomPin): string {
  const out = p.side === "left" ? 6 : -6;
  const ink = p.used ? DARK : "#8d877b";
  const name = `<text x="${p.x + out}" y="${p.y + 3.5}" font-size="9.5" fill="${ink}" text-anchor="${p.side === "left" ? "start" : "end"}">${esc(p.label)}</text>`;
  const fill = `fill="${p.used ? ink : PAPER}" stroke="${ink}"`;
  // Pin 1 is square, as its pad is.
  const mark = p.first
    ? `<rect x="${p.x - 3}" y="${p.y - 3}" width="6" height="6" ${fill}/>`
    : `<circle cx="${p.x}" cy="${p.y}" r="2.4" ${fill}/>`;
  return `${mark}${p.label ? name : ""}`;
}

function boxSvg(b: LoomBox): string {
  const dash = b.kind === "companion" ? ' stroke-dasharray="4 2"' : "";
  const mid = b.x + b.w / 2;
  const line = (text: string, y: number, size: number, rest = "") =>
    `<text x="${mid}" y="${b.y + y}" font-size="${size}" text-anchor="middle"${rest}>${esc(text)}</text>`;
  const head = b.inline
    ? line(b.ref, 11, 8.5, ' font-weight="700"') + line(b.name, b.h - 4, 7.5)
    : line(`${b.ref} ${b.label}`.trim().slice(0, 20), 13, 11, ' font-weight="700"') +
      line(b.name, 24, 7.5, ` fill="${SOFT}"`);
  return `<g><rect x="${b.x}" y="${b.y}" width="${b.w}" height="${b.h}" fill="${PAPER}" stroke="${DARK}"${dash}/>${head}${b.pins.map(pin).join("")}</g>`;
}

/** A name at a pin; a flag is where the wire ends: what stands on it is the rail or splice to go to. */
function tagSvg(t: LoomTag, ink: string): string {
  const s = t.side === "left" ? -1 : 1;
  const anchor = t.side === "left" ? "end" : "start";
  if (!t.flag)
    return `<text x="${t.x + s * 5}" y="${t.y - 2.5}" font-size="8" text-anchor="${anchor}" fill="${DARK}">${esc(t.text)}</text>`;
  return `<path d="M${t.x} ${t.y}h${s * 10}m0 -5v10m${s * 2.5} -10v10" fill="none" stroke="${ink}" stroke-width="1.6"/><text x="${t.x + s * 16}" y="${t.y + 3}" font-size="8" text-anchor="${anchor}" fill="${DARK}">${esc(t.text)}</text>`;
}

/** The loom as a stand-alone SVG: a line drawing, wires by colour, pattern and net name, legible in black and white. */
export function loomSvg(loom: Loom, title: string, o: SvgOptions = {}): string {
  const ink = (colour: string) => (o.plain ? DARK : inkOf(colour));
  const dash = (colour: string) => (o.plain && PATTERN[colour] ? ` stroke-dasharray="${PATTERN[colour]}"` : "");
  const nets = loom.nets.map(
    (n) =>
      `<g><path d="${n.path}" fill="none" stroke="${ink(n.colour)}" stroke-width="1.6"${dash(n.colour)}/>${n.dots.map(([x, y]) => `<circle cx="${x}" cy="${y}" r="2.6" fill="${ink(n.colour)}"/>`).join("")}</g>`,
  );
  const [w, h] = o.fit_mm ? o.fit_mm.map((mm) => `${mm}mm`) : [loom.width, loom.height];
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${loom.width} ${loom.height}" width="${w}" height="${h}" font-family="'Atkinson Hyperlegible Mono','DejaVu Sans Mono',monospace">
<title>${esc(title)}</title>
<rect width="100%" height="100%" fill="${PAPER}"/>
${loom.cables.map((k) => `<path d="${k.path}" fill="none" stroke="${SOFT}" stroke-width="4" stroke-linejoin="round" opacity="0.55"/>`).join("\n")}
${nets.join("\n")}
${loom.tags.map((t) => tagSvg(t, ink(t.colour))).join("\n")}
${loom.boxes.map(boxSvg).join("\n")}
</svg>
`;
}
