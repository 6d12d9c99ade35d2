import { Inflate, deflateSync, strFromU8, strToU8 } from "fflate";
import type { Catalogue } from "../parts/catalogue";
import {
  emptyDrawer,
  hash53,
  MAX_PROJECT_BYTES,
  readProject,
  writeProject,
  type LoadResult,
  type Project,
} from "../project";

/** What a code begins with: who sees it knows what it is, and to what to give it. */
export const MARK = "YL1:";
/**
 * Letters of the plan's text: of those that a code of squares stores densest, the ones that come through messages, addresses and
 * marked-up text unchanged. No blank, nothing that means something elsewhere.
 */
const LETTERS = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ$-./:";
const BASE = LETTERS.length;

/** Bytes as letters: two bytes are three letters, the low one first; a last byte is two. */
export function toLetters(bytes: Uint8Array): string {
  let out = "";
  for (let i = 0; i < bytes.length; i += 2) {
    const pair = i + 1 < bytes.length;
    let n = pair ? bytes[i]! * 256 + bytes[i + 1]! : bytes[i]!;
    for (let k = 0; k < (pair ? 3 : 2); k++) {
      out += LETTERS[n % BASE];
      n = Math.floor(n / BASE);
    }
  }
  return out;
}

/** The bytes of letters; null where they are none of ours. */
export function fromLetters(text: string): Uint8Array | null {
  const values = [...text].map((c) => LETTERS.indexOf(c));
  if (values.includes(-1) || values.length % 3 === 1) return null;
  const out: number[] = [];
  for (let i = 0; i < values.length; i += 3) {
    const [a, b, c] = [values[i]!, values[i + 1]!, values[i + 2]];
    const n = a + BASE * b + BASE * BASE * (c ?? 0);
    if (n > (c === undefined ? 255 : 65_535)) return null;
    if (c === undefined) out.push(n);
    else out.push(n >> 8, n & 255);
  }
  return Uint8Array.from(out);
}

/** Four bytes that tell a text from another: a letter read wrongly must never become another resistor. */
function sumOf(text: string): Uint8Array {
  const h = hash53(text);
  return Uint8Array.from([0n, 8n, 16n, 24n], (shift) => Number((h >> shift) & 255n));
}
const SUM = 4;

/**
 * The plan without what belongs to one bench or one machine: what was done and measured, the drawer, plans saved for comparing,
 * the print of a lesson.
 */
export function planOnly(p: Project): Project {
  const { savedPlan: _saved, lesson, ...rest } = p;
  const plan: Project = { ...rest, bench: [], drawer: emptyDrawer() };
  if (!lesson) return plan;
  const { made: _made, ...wish } = lesson;
  return { ...plan, lesson: wish };
}

/** A project's plan as one line of letters: short enough for a printed code where the plan is small. */
export function packPlan(p: Project): string {
  // What stands in every file alike is not written out again.
  const text = JSON.stringify(JSON.parse(writeProject(planOnly(p))));
  const body = deflateSync(strToU8(text), { level: 9 });
  const all = new Uint8Array(SUM + body.length);
  all.set(sumOf(text));
  all.set(body, SUM);
  return MARK + toLetters(all);
}

/** Never more than a project file may be, whatever a few letters claim to hold. */
function inflated(bytes: Uint8Array): string | null {
  const chunks: Uint8Array[] = [];
  let size = 0;
  try {
    const stream = new Inflate((chunk) => {
      size += chunk.length;
      if (size > MAX_PROJECT_BYTES) throw new Error("too large");
      chunks.push(chunk);
    });
    // In small pieces, so that it is noticed early.
    for (let i = 0; i < bytes.length; i += 1024) stream.push(bytes.subarray(i, i + 1024), i + 1024 >= bytes.length);
  } catch {
    return null;
  }
  const all = new Uint8Array(size);
  let at = 0;
  for (const c of chunks) {
    all.set(c, at);
    at += c.length;
  }
  return strFromU8(all);
}

/** Whether a text looks like a packed plan. */
export const isPacked = (text: string): boolean => text.trimStart().slice(0, MARK.length).toUpperCase() === MARK;

/** The project file in a packed plan; blanks, line breaks and small letters that a message makes are let pass. */
export function jsonOf(text: string): { ok: true; json: string } | { ok: false; message: string } {
  const no = (message: string) => ({ ok: false as const, message });
  const body = text.replace(/\s+/g, "").toUpperCase();
  if (!isPacked(body)) return no(`a plan as text begins with ${MARK}`);
  const bytes = fromLetters(body.slice(MARK.length));
  if (!bytes) return no("some of its letters are missing or other: copy the whole text, from YL1: to its end");
  const json = inflated(bytes.subarray(SUM));
  if (json === null || sumOf(json).some((x, i) => x !== bytes[i]))
    return no("it is cut off, or some letters are other: copy the whole text, from YL1: to its end");
  return { ok: true, json };
}

/** Reads a packed plan. Judged as a project file is. */
export function unpackPlan(text: string, catalogue: Catalogue): LoadResult {
  const r = jsonOf(text);
  return r.ok ? readProject(r.json, catalogue) : { ok: false, problems: [{ path: "", message: r.message }] };
}
