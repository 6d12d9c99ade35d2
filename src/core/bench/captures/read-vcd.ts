import { Changes, MOST_CHANGES, MOST_CHANNELS, type CaptureReader } from "./types";

const UNITS: Record<string, number> = { s: 1, ms: 1e-3, us: 1e-6, ns: 1e-9, ps: 1e-12, fs: 1e-15 };
/** A word longer than any that such a file has. */
const MOST_WORD = 4096;

/** Reads a value change dump (IEEE 1364, clause 18) as it comes: one-bit lines; vectors and reals are left out, and told. */
export function vcdReader(): CaptureReader {
  let rest = "";
  let unit = 1e-9;
  let scopes: string[] = [];
  /** Words of a declaration that is not at its end yet. */
  let open: string[] | null = null;
  let vector = false;
  let now = 0;
  let start: number | null = null;
  let last = 0;
  let kept = 0;
  let cut = false;
  let declared = false;
  const lines = new Map<string, Changes>();
  const left: string[] = [];
  const declare = (words: readonly string[]): string | null => {
    const [kind = "", ...body] = words;
    if (kind === "$timescale") {
      const m = /^(1|10|100)\s*(s|ms|us|ns|ps|fs)$/.exec(body.join(""));
      if (!m) return `its timescale "${body.join(" ").slice(0, 20)}" is none of 1, 10 or 100 s, ms, us, ns, ps, fs`;
      unit = Number(m[1]) * UNITS[m[2]!]!;
    } else if (kind === "$scope") scopes.push(body[1] ?? "");
    else if (kind === "$upscope") scopes = scopes.slice(0, -1);
    else if (kind === "$enddefinitions") declared = true;
    else if (kind === "$var") {
      const [type, width, id, name = ""] = body;
      if (!id) return "a line is declared without a name";
      if (width !== "1" || type === "real") left.push(name);
      else if (lines.size >= MOST_CHANNELS) left.push(name);
      else if (!lines.has(id)) lines.set(id, new Changes(name.slice(0, 80)));
    }
    return null;
  };
  const change = (id: string, value: string) => {
    const line = lines.get(id);
    if (!line || (value !== "0" && value !== "1")) return;
    if (kept >= MOST_CHANGES) cut = true;
    else if (line.put(now * unit, value === "1" ? 1 : 0)) kept++;
  };
  const word = (w: string): string | null => {
    if (open) {
      if (w !== "$end") {
        if (open.length < 64) open.push(w);
        return null;
      }
      const done = open;
      open = null;
      return declare(done);
    }
    if (vector) {
      vector = false;
      return null;
    }
    const c = w[0]!;
    if (c === "#") {
      const t = Number(w.slice(1));
      if (!Number.isFinite(t)) return `"${w.slice(0, 20)}" is no time`;
      now = t;
      start ??= t;
      last = Math.max(last, t);
    } else if (c === "$") {
      // Dumps begin and end with words of their own around plain changes.
      if (!/^\$(dumpvars|dumpall|dumpon|dumpoff|end)$/.test(w)) open = [w];
    } else if (/[01xXzZ]/.test(c) && w.length > 1) change(w.slice(1), c);
    else if (/[bBrR]/.test(c)) vector = true;
    else return `"${w.slice(0, 20)}" is nothing that such a file has`;
    return null;
  };
  return {
    push(text) {
      const words = (rest + text).split(/\s+/);
      rest = words.pop() ?? "";
      if (rest.length > MOST_WORD) return "it is no value change dump: a word in it never ends";
      for (const w of words) {
        const why = w ? word(w) : null;
        if (why) return why;
      }
      return null;
    },
    end() {
      const why = rest ? word(rest) : null;
      if (why) return { ok: false, why };
      if (!declared) return { ok: false, why: "it is no value change dump: its declarations never end" };
      if (!lines.size) return { ok: false, why: "no line of one bit is declared in it" };
      const from = (start ?? 0) * unit;
      return {
        ok: true,
        capture: {
          channels: [...lines.values()].map((l) => l.channel(from)),
          span: last * unit - from,
          says: [
            ...(left.length
              ? [`Left out, as they are not lines of one bit or too many: ${left.slice(0, 8).join(", ")}.`]
              : []),
            ...(cut ? [`Only the first ${MOST_CHANGES.toLocaleString("en")} changes are read.`] : []),
          ],
        },
      };
    },
  };
}
