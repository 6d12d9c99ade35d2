/** Letters that are not taken for each other, read aloud or written on a board; no vowels, so that no word comes of them. */
export const CODE_LETTERS = "BCDFGHJKLMNPQRSTVWXZ";
export const CODE_LENGTH = 5;

/** A bench's code from random bytes; each letter alike likely. `bytes` gives fresh ones. */
export function codeFrom(bytes: () => Uint8Array): string {
  let out = "";
  while (out.length < CODE_LENGTH)
    for (const b of bytes()) {
      // What would make some letters likelier is thrown away.
      if (b >= 240 || out.length >= CODE_LENGTH) continue;
      out += CODE_LETTERS[b % CODE_LETTERS.length];
    }
  return out;
}

/** A code as somebody typed it: small letters and blanks do no harm; null where it is none. */
export function readCode(text: string): string | null {
  const t = text.toUpperCase().replace(/[\s-]/g, "");
  return t.length === CODE_LENGTH && [...t].every((c) => CODE_LETTERS.includes(c)) ? t : null;
}
