import type { Project } from "./schema";

/** Letters of a fingerprint: no vowels, so that no word comes out, and none that is misread for another. */
const LETTERS = "BCDFGHJKMNPQRSTVWXZ";
const LENGTH = 8;

/** Plain data as text that does not depend on the order of keys; what is unsaid is left out. */
function canonical(x: unknown): string {
  if (Array.isArray(x)) return `[${x.map(canonical).join(",")}]`;
  if (x === null || typeof x !== "object") return JSON.stringify(x) ?? "null";
  const entries = Object.entries(x).filter(([, v]) => v !== undefined);
  return `{${entries
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([k, v]) => `${JSON.stringify(k)}:${canonical(v)}`)
    .join(",")}}`;
}

/** 53 bits from a text, well mixed: two multiplicative 32-bit hashes side by side. */
export function hash53(text: string): bigint {
  let [a, b] = [0xdeadbeef, 0x41c6ce57];
  for (let i = 0; i < text.length; i++) {
    const ch = text.charCodeAt(i);
    a = Math.imul(a ^ ch, 2654435761);
    b = Math.imul(b ^ ch, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return (BigInt(b >>> 0) << 21n) | BigInt((a >>> 0) & 0x1fffff);
}

const known = new WeakMap<Project, string>();

/**
 * Eight letters that stand for a plan: parts with their options and companions, wires, clocks, and the own parts in use. Names,
 * colours, ticks, and who made a wire do not count: what is built is the same. Two sheets with different letters are of
 * different plans.
 */
export function fingerprint(project: Project): string {
  const there = known.get(project);
  if (there) return there;
  const byRef = <T extends { ref: string }>(list: readonly T[]) => [...list].sort((x, y) => (x.ref < y.ref ? -1 : 1));
  const used = new Set(project.parts.map((p) => p.part));
  const text = canonical({
    parts: byRef(project.parts).map(({ label: _l, wire_cm: _w, ...p }) => p),
    wires: project.links.map((l) => [l.from, l.to].sort().join(" ")).sort(),
    buses: [...project.buses].sort((x, y) => (`${x.host}${x.bus}` < `${y.host}${y.bus}` ? -1 : 1)),
    own: project.customParts.filter((p) => used.has(p.id)).sort((x, y) => (x.id < y.id ? -1 : 1)),
  });
  let rest = hash53(text);
  let out = "";
  for (let i = 0; i < LENGTH; i++) {
    out += LETTERS[Number(rest % BigInt(LETTERS.length))];
    rest /= BigInt(LETTERS.length);
  }
  known.set(project, out);
  return out;
}
