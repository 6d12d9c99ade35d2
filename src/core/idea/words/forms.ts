import { CLASSES, type ClassName } from "./classes";

const escaped = (w: string) => w.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

/**
 * The forms of an English word as a pattern: plural, past and -ing by the common rules. A word that ends with `!` is taken as it is;
 * of several words only the last has forms, and they may be written as one.
 */
function forms(word: string): string {
  if (word.endsWith("!")) return escaped(word.slice(0, -1)).replace(/ /g, " ?");
  const w = escaped(word).replace(/ /g, " ?");
  const last = w.at(-1)!;
  const stem = w.slice(0, -1);
  if (/[^aeiou]y$/.test(w)) return `${stem}(?:y|ies|ied|ying)`;
  if (last === "e") return `${stem}(?:e|es|ed|ing)`;
  if (/[bdgklmnprt]$/.test(w)) return `${w}(?:s|es|ed|ing|${last}ed|${last}ing)?`;
  return `${w}(?:s|es|ed|ing)?`;
}

const classPattern = new Map<string, string>(
  Object.entries(CLASSES).map(([name, words]) => [
    name,
    // The longer first, or "bed" would be found in "bedroom".
    `(?:${words
      .split(",")
      .map((w) => w.trim())
      .sort((a, b) => b.length - a.length)
      .map(forms)
      .join("|")})(?:'s)?\\b`,
  ]),
);

const expanded = (text: string): string =>
  text.replace(/\{([a-z]+)\}/g, (_, name: string) => {
    const p = classPattern.get(name as ClassName);
    if (!p) throw new Error(`no class of words called "${name}"`);
    return p;
  });

/** So many letters may stand between two words that belong together, within one clause. */
const BETWEEN = "(?:(?! (?:when|if|while|until|because|so|but|whether) )[^.;:,!?]){0,32}?";

/**
 * A pattern of the table of words as a regular expression: `{class}` stands for any of its words in any form, and `a ~ b` for the
 * two of them in either order within one clause.
 */
export function wordPattern(text: string): string {
  const halves = text.split(" ~ ").map(expanded);
  if (halves.length === 1) return halves[0]!;
  const [a, b] = halves as [string, string];
  return `(?:${a})${BETWEEN}(?<![\\w])(?:${b})|(?:${b})${BETWEEN}(?<![\\w])(?:${a})`;
}
