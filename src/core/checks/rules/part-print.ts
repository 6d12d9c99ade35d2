import { absentPins, printLine, printsOf, printText } from "../../parts/catalogue";
import { label } from "../help";
import type { Found, Rule } from "../types";

export const partPrint: Rule = {
  rule: "part.print",
  says: "Sellers print the same module in different orders: until the one in hand was looked at, a place on its header is a guess, and a guess swaps supply and ground.",
  check: (c) =>
    c.project.parts.flatMap((entry): Found[] => {
      const inst = c.netlist.instance(entry.ref);
      if (!inst) return [];
      const { ref, part, reading } = inst;
      const prints = printsOf(part);
      if (!reading.confirmed && reading.doubtful)
        return [
          {
            rule: "part.print",
            severity: "risk",
            at: [ref],
            message: `${label(c, ref)}: nobody has looked at its header yet. ${prints.length > 1 ? `It is sold as ${prints.map((p) => `"${printText(p)}"`).join(", or as ")}` : `"${printLine(reading)}" is only assumed`}: wires go by the labels on it, never by their place. Confirm it at Parts.`,
            evidence: { prints: prints.length, certainty: reading.certainty },
            fixes: prints.map((p) => ({
              id: `print-${p.id}`,
              label: `Mine (${ref}) reads ${printText(p)}`,
              edits: [{ type: "setPrint" as const, ref, print: { id: p.id } }],
            })),
          },
        ];
      if (!entry.print) return [];
      const absent = new Set(absentPins(part, entry.print, entry.options));
      const wired = c.netlist.wires
        .flatMap((w) => [w.from, w.to])
        .filter((e) => e.ref === ref && absent.has(e.pin))
        .map((e) => e.pin);
      return wired.length
        ? [
            {
              rule: "part.print",
              severity: "fault",
              at: [ref],
              message: `${label(c, ref)}: a wire goes to ${[...new Set(wired)].join(", ")}, and the header that was confirmed has no such pin. Take the wire out, or look at the header again.`,
              evidence: { wires: wired.length },
              fixes: [
                {
                  id: "unwire",
                  label: "Take the wire out",
                  edits: c.project.links.flatMap((l) => {
                    const gone = [l.from, l.to].some((e) => wired.some((pin) => e === `${ref}.${pin}`));
                    return gone ? [{ type: "removeLink" as const, from: l.from, to: l.to }] : [];
                  }),
                },
              ],
            },
          ]
        : [];
    }),
};
