/** Eight hexadecimal digits that tell whether a text is another (FNV-1a, 32 bits): against mistakes, not against malice. */
export function mark(text: string): string {
  let h = 0x811c9dc5;
  for (const b of new TextEncoder().encode(text)) h = Math.imul(h ^ b, 0x01000193) >>> 0;
  return h.toString(16).padStart(8, "0");
}

/** Stands in a program under way for a region, on a line of its own. */
export const place = (name: string) => `@@your code: ${name}@@`;
const PLACE = /^([ \t]*)@@your code: (\w+)@@[ \t]*\n?/gm;
const BEGINS = /^([ \t]*)(?:\/\/|#) >>> your code: (\w+) ([0-9a-f]{8})[ \t]*$/;
const ENDS = /^[ \t]*(?:\/\/|#) <<< your code\b/;
const WHOLE = /^(?:\/\/|#) the rest of this file: ([0-9a-f]{8})[ \t]*$/m;

const ended = (text: string) => (text === "" || text.endsWith("\n") ? text : `${text}\n`);
const lines = (text: string) => text.replace(/\r\n?/g, "\n");
/** A file without what stands in its regions, and without its last line: what only the plan may change. */
const rest = (text: string): string => {
  let inside = false;
  return text
    .split("\n")
    .filter((l) => {
      if (ENDS.test(l)) inside = false;
      const keep = !inside;
      if (BEGINS.test(l)) inside = true;
      return keep && !WHOLE.test(l);
    })
    .map((l) => l.replace(/(>>> your code: \w+) [0-9a-f]{8}/, "$1").trimEnd())
    .join("\n")
    .trimEnd();
};

/**
 * Puts own code into its places, as deep as they stand, between marks that know what was put there; the last line knows the
 * rest. `leader` begins a comment.
 */
export function fillOwn(text: string, leader: "//" | "#", own: (name: string) => string): string {
  const filled = text.replace(PLACE, (_all, deep: string, name: string) => {
    const code = ended(lines(own(name)));
    const body = code.replace(/^(?=.)/gm, deep);
    return `${deep}${leader} >>> your code: ${name} ${mark(code)}\n${body}${deep}${leader} <<< your code: ${name}\n`;
  });
  if (filled === text) return text;
  return `${filled.trimEnd()}\n${leader} the rest of this file: ${mark(rest(filled))}\n`;
}

export interface OwnFile {
  /** By region: what stands there now, and whether that is other than what was written. */
  regions: Map<string, { text: string; edited: boolean }>;
  /** Something outside of the regions was changed; null when the file does not say how it was. */
  outside: boolean | null;
  problems: string[];
}

/** Reads the regions of a program file that may have been edited. Never throws. */
export function readOwn(file: string): OwnFile {
  const regions: OwnFile["regions"] = new Map();
  const problems: string[] = [];
  let open: { name: string; was: string; deep: string; body: string[]; line: number } | null = null;
  const text = lines(file);
  for (const [i, line] of text.split("\n").entries()) {
    const begins = BEGINS.exec(line);
    if (begins) {
      if (open)
        problems.push(`line ${i + 1}: "${begins[2]}" begins before "${open.name}" of line ${open.line} has ended`);
      open = { name: begins[2]!, was: begins[3]!, deep: begins[1]!, body: [], line: i + 1 };
    } else if (ENDS.test(line)) {
      if (!open) problems.push(`line ${i + 1}: own code ends here and has not begun`);
      else {
        const own = open.body.map((l) => (l.startsWith(open!.deep) ? l.slice(open!.deep.length) : l.trimStart()));
        const code = own.length ? `${own.join("\n")}\n` : "";
        if (regions.has(open.name)) problems.push(`line ${open.line}: "${open.name}" stands in this file twice`);
        else regions.set(open.name, { text: code, edited: mark(code) !== open.was });
      }
      open = null;
    } else open?.body.push(line);
  }
  if (open) problems.push(`line ${open.line}: "${open.name}" begins here and never ends`);
  const whole = WHOLE.exec(text)?.[1];
  return { regions, outside: whole === undefined ? null : whole !== mark(rest(text)), problems };
}
