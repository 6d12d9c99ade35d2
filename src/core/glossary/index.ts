import { TERMS, type Term } from "./terms";

export { TERMS, type Term } from "./terms";

const escape = (s: string) => s.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

/** Every spelling, the longest first, so that "open drain" is found before "drain" would be. */
const byWord = new Map(TERMS.flatMap((t) => [t.term, ...(t.also ?? [])].map((w) => [w.toLowerCase(), t] as const)));
const words = [...byWord.keys()].sort((a, b) => b.length - a.length);
const any = new RegExp(`(?<![\\p{L}\\p{N}_.-])(${words.map(escape).join("|")})(?![\\p{L}\\p{N}_-])`, "giu");
/** Acronyms are written in capitals; "cs" or "net" in another sense is left alone. */
const isAcronym = (w: string) => w.length <= 4 && w === w.toUpperCase();
const capitals = new Set(
  TERMS.flatMap((t) => [t.term, ...(t.also ?? [])].filter(isAcronym)).map((w) => w.toLowerCase()),
);

export type Piece = { text: string; term: Term | null };

/** The term that is written so, whatever the case; undefined when there is none. */
export const termOf = (word: string): Term | undefined => byWord.get(word.trim().toLowerCase());

/** A text in pieces: each term at its first mention, everything else as it is. Pieces joined give the text back. */
export function inPieces(text: string): Piece[] {
  const out: Piece[] = [];
  const seen = new Set<Term>();
  let from = 0;
  for (const m of text.matchAll(any)) {
    const word = m[0];
    const term = byWord.get(word.toLowerCase())!;
    if (seen.has(term) || (capitals.has(word.toLowerCase()) && !isAcronym(word))) continue;
    seen.add(term);
    if (m.index > from) out.push({ text: text.slice(from, m.index), term: null });
    out.push({ text: word, term });
    from = m.index + word.length;
  }
  if (from < text.length || !out.length) out.push({ text: text.slice(from), term: null });
  return out;
}

/** The terms that occur in some texts, in the order of the alphabet. */
export function termsIn(texts: readonly string[]): Term[] {
  const found = new Set(texts.flatMap((t) => inPieces(t).flatMap((p) => p.term ?? [])));
  return [...found].sort((a, b) => a.term.localeCompare(b.term, "en"));
}
