/** Words that people typed, made safe for each format that they are written into: one function a format. */

/** What no reader shows as a letter: control characters, line and paragraph ends, and what turns the direction of writing. */
const UNSEEN = /[\p{Cc}\u2028\u2029]+/gu;
const TURNS = /[\u061c\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufeff\ufff9-\ufffb]/g;
/** Halves of a character, and code points that are none: XML forbids them, others make of them what they like. */
const NONE = /[\ufdd0-\ufdef\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/** On one line, in the order in which it reads, nothing hidden. What every format below begins with. */
export const plain = (text: string): string => text.replace(TURNS, "").replace(NONE, "").replace(UNSEEN, " ");

/** Signs that begin a formula in a spreadsheet, wide ones too. */
const FORMULA = /^([\s"]*)([=+\-@\uff1d\uff0b\uff0d\uff20])/;
/** The same behind what another reader takes for the end of a cell. */
const INNER = /([;|]\s*"*\s*)(?=[=+\-@\uff1d\uff0b\uff0d\uff20])/g;

/** A cell of a table: never a formula, whichever sign its reader takes between cells, and never more than one row. */
export const csvCell = (text: string): string => plain(text).replace(INNER, "$1'").replace(FORMULA, "'$1$2");

const MARKDOWN: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;" };
/** Text in Markdown, in a cell of a table too: no link, no picture, no heading, no HTML, no cell of its own. */
export const markdown = (text: string): string =>
  plain(text)
    .replace(/\|/g, "/")
    .replace(/[&<>]/g, (c) => MARKDOWN[c]!)
    .replace(/[\\`*[\]~]/g, (c) => `\\${c}`)
    .replace(/(?<![A-Za-z0-9])_|_(?![A-Za-z0-9])/g, "\\_")
    .replace(/:\/\//g, ":\\/\\/")
    .replace(/\b(www)\./gi, "$1\\.")
    .replace(/@/g, "&#64;")
    // Only what begins a heading, a list or a line of its own: "3.3 V" and "-3" are no such thing.
    .replace(
      /^(\s*)(#{1,6}|[+-]|\d+[.)])(?=\s|$)/,
      (_, room: string, sign: string) => `${room}${sign.slice(0, -1)}\\${sign.slice(-1)}`,
    )
    .replace(/^(\s*)([=:-]+\s*)$/, "$1\\$2");

/** Text in XML, between tags or in an attribute. */
export const xml = (text: string): string => plain(text).replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** Text in a string or a comment of a program, in every language that we write: printable ASCII on one line. */
export const code = (text: string, most = 40): string =>
  text
    .normalize("NFKD")
    .replace(/[^\x20-\x7e]/g, "")
    .replace(/["\\]/g, "'")
    .replace(/\*\//g, "* /")
    .replace(/\/\*/g, "/ *")
    // Two of them begin a trigraph.
    .replace(/\?{2,}/g, "?")
    .slice(0, most)
    .trim();

/** The same in a format of `printf` or of Python's `%`. */
export const format = (text: string): string => text.replace(/%/g, "%%");

/** Lines for a terminal: what would move its cursor, colour it or name its window is left out. */
export const terminal = (text: string): string =>
  text
    .split("\n")
    .map((l) =>
      l
        .replace(TURNS, "")
        .replace(NONE, "")
        .replace(/[\p{Cc}]/gu, (c) => (c === "\t" ? c : "")),
    )
    .join("\n");
