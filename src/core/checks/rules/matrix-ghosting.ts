import { isRail, netById } from "../graph";
import { label, owner } from "../help";
import type { Rule } from "../types";

/** Four contacts at the corners of two rows and two columns: three pressed keys make the fourth. */
export const matrixGhosting: Rule = {
  rule: "matrix.ghosting",
  says: "In a grid of contacts without diodes three pressed keys look like a fourth.",
  check: (c) => {
    const contacts = c.netlist.elements.filter((e) => {
      if (e.kind !== "contact") return false;
      const [a, b] = [netById(c, e.a), netById(c, e.b)];
      return a && b && a !== b && !isRail(a) && !isRail(b);
    });
    const at = new Map<string, Set<string>>();
    for (const e of contacts)
      for (const [x, y] of [
        [e.a, e.b],
        [e.b, e.a],
      ] as const)
        at.set(x, (at.get(x) ?? new Set()).add(y));
    const nets = [...at.keys()];
    for (const [i, a] of nets.entries())
      for (const b of nets.slice(i + 1)) {
        const both = [...at.get(a)!].filter((x) => at.get(b)!.has(x));
        if (both.length < 2) continue;
        const square = contacts.filter(
          (e) => [a, b].some((x) => e.a === x || e.b === x) && both.some((x) => e.a === x || e.b === x),
        );
        const refs = [...new Set(square.map((e) => owner(c, e.ref)))];
        // One keypad is pressed key by key; separate switches stay closed together.
        const keypad = refs.length === 1;
        return [
          {
            rule: "matrix.ghosting",
            severity: keypad ? "note" : "risk",
            at: refs,
            message: keypad
              ? `${label(c, refs[0]!)} has no diodes: two keys at once are told apart, three may show a fourth.`
              : `${refs.map((r) => label(c, r)).join(", ")} form a grid without diodes: with three of them closed the fourth reads as closed too.`,
            evidence: { contacts: square.length },
            fixes: [],
          },
        ];
      }
    return [];
  },
};
