/** What a meter or a person said, as typed. */
export type Reading = { ok: true; value: number | "beep" | "open" } | { ok: false; message: string };

export type Unit = "beep" | "Ω" | "V" | "mA" | "word";

const PREFIX: Record<string, number> = { k: 1e3, M: 1e6, m: 1e-3, µ: 1e-6, u: 1e-6, "": 1 };
/** Below this a meter in beep mode sounds, ohms. */
const SOUNDS_OHM = 30;

/** Longer than any display, and more than any shows, in any unit. */
const MOST_LETTERS = 40;
const MOST = 1e9;

const OVER = /^(ol|o\.l|0l|overload|over|inf|∞|open)\.?$/i;
const SILENT = /^(no( beep| sound)?|silent|silence|nothing|n|-{1,3})$/i;
const BEEPS = /^(beeps?|yes|y|sounds?)$/i;

/**
 * Reads a meter's display as typed: `3.28`, `3,28 V`, `−0.4`, `12k`, `0.08 A`, `OL` (over limit: no connection), `beep`,
 * `no beep`. A bare number is in the unit that the check asks for.
 */
export function parseReading(text: string, unit: Unit): Reading {
  const t = text.trim().replace(/[−–]/, "-");
  const example =
    unit === "beep" ? "beep, no beep, 0.3 or OL" : unit === "Ω" ? "330, 4.7k or OL" : unit === "V" ? "3.28" : "80";
  const no = (): Reading => ({
    ok: false,
    message: `"${text.slice(0, 40)}" is not a reading; type it as the meter shows it, like ${example}`,
  });
  if (unit === "beep") {
    if (OVER.test(t) || SILENT.test(t)) return { ok: true, value: "open" };
    if (BEEPS.test(t)) return { ok: true, value: "beep" };
  }
  if (unit === "Ω" && OVER.test(t)) return { ok: true, value: Infinity };
  if (t.length > MOST_LETTERS) return no();
  const m = /^([+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*([kKMmµu]?)\s*(V|A|Ω|ohms?|volts?|amps?)?$/i.exec(t);
  if (!m) return no();
  const kind = { v: "V", a: "mA", ω: "Ω", o: "Ω" }[m[3]?.[0]?.toLowerCase() ?? ""];
  const asked = unit === "beep" ? "Ω" : unit;
  // Ohms with "m" are megohms on many hands' sheets: only what is sure is taken.
  if ((kind && kind !== asked) || (asked === "Ω" && m[2] === "m")) return no();
  const bare = Number(m[1]!.replace(",", "."));
  const value = bare * PREFIX[/[KU]/.test(m[2]!) ? m[2]!.toLowerCase() : m[2]!]!;
  // No resistance is below zero, and no meter shows so much.
  if ((asked === "Ω" && bare < 0) || value > MOST) return no();
  if (unit === "mA") return { ok: true, value: m[2] || kind ? value * 1000 : bare };
  if (unit === "beep") return { ok: true, value: value < SOUNDS_OHM ? "beep" : "open" };
  return { ok: true, value };
}
