import { Inflate, deflateSync, strFromU8, strToU8 } from "fflate";
import type { Catalogue } from "../parts/catalogue";
import { MAX_PROJECT_BYTES, readProject, writeProject, type Project, type LoadResult } from "../project";

/** What a code begins with: who sees it knows what it is, and to what to give it. */
export const MARK = "YL1:";
/** The letters that a code of squares stores densest, as 45 values. */
const LETTERS = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ $%*+-./:";

/** Bytes as letters: two bytes are three letters, the low one first; a last byte is two. */
export function toLetters(bytes: Uint8Array): string {
  let out = "";
  for (let i = 0; i < bytes.length; i += 2) {
    const pair = i + 1 < bytes.length;
    let n = pair ? bytes[i]! * 256 + bytes[i + 1]! : bytes[i]!;
    for (let k = 0; k < (pair ? 3 : 2); k++) {
      out += LETTERS[n % 45];
      n = Math.floor(n / 45);
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
    const n = a + 45 * b + 2025 * (c ?? 0);
    if (n > (c === undefined ? 255 : 65_535)) return null;
    if (c === undefined) out.push(n);
    else out.push(n >> 8, n & 255);
  }
  return Uint8Array.from(out);
}

/**
 * The plan without what belongs to one bench or one machine: what was done and measured, the drawer, plans saved for comparing,
 * the print of a lesson.
 */
export function planOnly(p: Project): Project {
  const { savedPlan: _saved, lesson, ...rest } = p;
  const { made: _made, ...wish } = lesson ?? { level: "11-14" as const, minutes: 90, aims: [] };
  return {
    ...rest,
    bench: [],
    drawer: { parts: {}, resistors_ohm: [], capacitors_F: [] },
    ...(lesson && { lesson: wish as typeof lesson }),
  };
}

/** A project's plan as one line of letters: short enough for a printed code where the plan is small. */
export function packPlan(p: Project): string {
  // What stands in every file alike is not written out again.
  const text = JSON.stringify(JSON.parse(writeProject(planOnly(p))));
  return MARK + toLetters(deflateSync(strToU8(text), { level: 9 }));
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

/** The project file in a packed plan; line breaks that a message puts in are let pass. */
export function jsonOf(text: string): { ok: true; json: string } | { ok: false; message: string } {
  const no = (message: string) => ({ ok: false as const, message });
  const body = text.trim().replace(/[\r\n\t]+/g, "");
  if (!isPacked(body)) return no(`a plan as text begins with ${MARK}`);
  const bytes = fromLetters(body.slice(MARK.length));
  if (!bytes) return no("some of its letters are missing or other: copy the whole text, from YL1: to its end");
  const json = inflated(bytes);
  if (json === null) return no("it is cut off or damaged: copy the whole text, from YL1: to its end");
  return { ok: true, json };
}

/** Reads a packed plan. Judged as a project file is. */
export function unpackPlan(text: string, catalogue: Catalogue): LoadResult {
  const r = jsonOf(text);
  return r.ok ? readProject(r.json, catalogue) : { ok: false, problems: [{ path: "", message: r.message }] };
}
