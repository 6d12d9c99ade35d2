import { ConnectorPinsSchema } from "../../parts/catalogue";
import { evaluate } from "../../quantity";
import { label } from "../help";
import type { Found, Rule } from "../types";

/** Above these voltages touching can kill: the limits of extra-low voltage, IEC 61140 (AC) with the safe side for DC. */
const DC_V = 75;

/** A voltage of the grid in words: "230 V", "110-volt", "220–240 VAC". */
const GRID = /\b(1[0-2][05]|127|2[0-4]0|400)\s*(?:(?:-|–|\.\.|to)\s*\d{3}\s*)?[- ]?(v|vac|volts?)\b/i;
const GRID_WORDS = /\b(mains|line voltage|wall (?:socket|outlet)|power grid)\b/i;
/** Words that take the sentence back: "no mains", "not for 230 V", and a charger or adapter whose low side is what is wired. */
const DENIED = /\b(no|not|never|without|isolated from|instead of)\b[^.]{0,40}$/i;
const LOW_SIDE = /\b(adapter|charger|power supply unit|plug-in supply)\b/i;

/** The words of a text that mean the grid; null when it means something else. */
export function gridWords(text: string): string | null {
  const m = GRID.exec(text) ?? GRID_WORDS.exec(text);
  if (!m || DENIED.test(text.slice(0, m.index)) || LOW_SIDE.test(text)) return null;
  return m[0];
}

const found = (at: string, what: string, evidence: Found["evidence"]): Found => ({
  rule: "power.mains",
  severity: "stop",
  at: [at],
  message: `${what}. Mains and anything above 50 V AC or 75 V DC is not planned here: it kills and burns. It needs your local electrical rules and a licensed person. Plan the low-voltage side only.`,
  evidence,
  fixes: [],
});

export const mains: Rule = {
  rule: "power.mains",
  says: "Voltages above 50 V AC or 75 V DC are not planned here: that needs local rules and a licensed person.",
  check: (c) => {
    const own = new Set(c.project.customParts.map((p) => p.id));
    return [...c.netlist.expanded.instances.values()].flatMap((inst): Found[] => {
      if (inst.inserted) return [];
      const entry = c.project.parts.find((p) => p.ref === inst.ref);
      for (const s of Object.values(inst.part.supplies)) {
        const V = Math.max(
          s.source ? evaluate(s.source.V.max, inst.vars) : 0,
          s.source || own.has(inst.part.id) ? evaluate(s.V.typ, inst.vars) : 0,
        );
        if (V > DC_V) return [found(inst.ref, `${label(c, inst.ref)} brings ${V.toFixed(0)} V`, { V })];
      }
      for (const e of inst.part.elements)
        if (e.kind === "load") {
          const V = evaluate(e.V.typ, inst.vars);
          if (V > DC_V) return [found(inst.ref, `${label(c, inst.ref)} is made for ${V.toFixed(0)} V`, { V })];
        }
      const pins = ConnectorPinsSchema.safeParse(entry?.options?.pins);
      for (const [pin, p] of Object.entries(pins.success ? pins.data : {})) {
        if (p?.V !== undefined && p.V > DC_V)
          return [found(`${inst.ref}.${pin}`, `${label(c, inst.ref)} carries ${p.V} V on pin ${pin}`, { V: p.V })];
        const words = p?.name ? gridWords(p.name) : null;
        if (words)
          return [found(`${inst.ref}.${pin}`, `Pin ${pin} of ${label(c, inst.ref)} says "${words}"`, { words })];
      }
      const text = [inst.label, ...(own.has(inst.part.id) ? [inst.part.name, inst.part.does, ...inst.part.notes] : [])];
      const words = text.map(gridWords).find((w) => w !== null);
      return words ? [found(inst.ref, `${label(c, inst.ref)} says "${words}"`, { words })] : [];
    });
  },
};
