import type { Loom } from "../wiring";

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

/** The loom as a stand-alone SVG: a line drawing, wires by colour and by net name, legible in black and white. */
export function loomSvg(loom: Loom, title: string): string {
  const boxes = loom.boxes.map((b) => {
    const pins = b.pins.map((p) => {
      const out = p.side === "left" ? 6 : -6;
      const ink = p.used ? "#1d1b18" : "#a39d90";
      return `<circle cx="${p.x}" cy="${p.y}" r="2.4" fill="${p.used ? ink : "#fffdf7"}" stroke="${ink}"/><text x="${p.x + out}" y="${p.y + 3.5}" font-size="9.5" fill="${ink}" text-anchor="${p.side === "left" ? "start" : "end"}">${esc(p.label)}</text>`;
    });
    const dash = b.kind === "companion" ? ' stroke-dasharray="4 2"' : "";
    return `<g><rect x="${b.x}" y="${b.y}" width="${b.w}" height="${b.h}" fill="#fffdf7" stroke="#1d1b18"${dash}/><text x="${b.x + b.w / 2}" y="${b.y + 13}" font-size="11" font-weight="700" text-anchor="middle">${esc(`${b.ref} ${b.label === b.ref ? "" : b.label}`.trim().slice(0, 22))}</text><text x="${b.x + b.w / 2}" y="${b.y + 24}" font-size="7.5" fill="#55514a" text-anchor="middle">${esc(b.name.slice(0, 29))}</text>${pins.join("")}</g>`;
  });
  const nets = loom.nets.map(
    (n) =>
      `<g><path d="${n.path}" fill="none" stroke="${inkOf(n.colour)}" stroke-width="1.6"/>${n.dots.map(([x, y]) => `<circle cx="${x}" cy="${y}" r="2.2" fill="${inkOf(n.colour)}"/>`).join("")}<text x="${n.tag[0] + 3}" y="${n.tag[1]}" font-size="7.5" transform="rotate(-90 ${n.tag[0] + 3} ${n.tag[1]})" text-anchor="middle" stroke="#fffdf7" stroke-width="3" paint-order="stroke">${esc(n.name)}</text></g>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${loom.width} ${loom.height}" width="${loom.width}" height="${loom.height}" font-family="'Atkinson Hyperlegible Mono','DejaVu Sans Mono',monospace">
<title>${esc(title)}</title>
<rect width="100%" height="100%" fill="#fffdf7"/>
${loom.cables.map((k) => `<path d="${k.path}" fill="none" stroke="#55514a" stroke-width="4" stroke-linejoin="round" opacity="0.55"/>`).join("\n")}
${nets.join("\n")}
${boxes.join("\n")}
</svg>
`;
}
