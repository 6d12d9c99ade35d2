import type { Circuit } from "../../circuit";
import type { Flow } from "../../circuit/solve";
import { formatV } from "../../quantity";
import { label, round } from "../help";
import type { Found, Rule } from "../types";
import { endWords, unwireFixes } from "./words";

/** From here on nothing but the copper limits the current, amperes. */
const SHORT_A = 5;
/** A resistor below this is a shunt: it limits nothing. */
const SHUNT_OHM = 1;

/** A way of contacts (and shunts) only, from one rail to another. */
const isBare = (f: Flow) =>
  [...f.from.passed, ...f.to.passed].every(
    (e) => e.kind === "contact" || e.kind === "diode" || (e.kind === "resistor" && (e.ohm ?? 0) < SHUNT_OHM),
  );

const contactsOf = (f: Flow) => [f.element, ...f.from.passed, ...f.to.passed].filter((e) => e.kind === "contact");

function fixesOf(c: Circuit, refs: string[]) {
  const ref = refs.find((r) => c.project.parts.some((p) => p.ref === r));
  const part = ref && c.netlist.instance(ref)?.part;
  const pins = part ? part.pins.filter((p) => p.role === "passive").map((p) => `${ref}.${p.label}`) : [];
  return pins.flatMap((end) => unwireFixes(c, end, 1)).slice(0, 2);
}

/** A contact whose closing joins a supply to ground or to another supply. */
export const shortByContact: Rule = {
  rule: "power.short-by-contact",
  says: "A contact across a supply is a short circuit as soon as it closes: wires glow, cells vent.",
  check: (c) => {
    const seen = new Set<string>();
    return [...c.solved.flows.values()].flatMap((f): Found[] => {
      if (f.element.kind !== "contact" || f.A.typ < SHORT_A || !isBare(f)) return [];
      const [from, to] = [f.from.end, f.to.end];
      if (from.kind !== "rail" || to.kind !== "rail") return [];
      const refs = [...new Set(contactsOf(f).map((e) => e.ref))].sort();
      const key = `${refs.join()} ${from.net.id} ${to.net.id}`;
      if (seen.has(key)) return [];
      seen.add(key);
      const V = (from.net.V?.typ ?? 0) - (to.net.V?.typ ?? 0);
      return [
        {
          rule: "power.short-by-contact",
          severity: "stop",
          at: refs,
          message: `${refs.map((r) => label(c, r)).join(" and ")} ${refs.length > 1 ? "join" : "joins"} ${endWords(c, from)} to ${endWords(c, to)} when closed: a short circuit over ${formatV(V)}. Do not power this. A switch belongs into the wire to a load, not across the supply.`,
          evidence: { across_V: round(V), contacts: refs.length },
          fixes: () => fixesOf(c, refs),
        },
      ];
    });
  },
};
