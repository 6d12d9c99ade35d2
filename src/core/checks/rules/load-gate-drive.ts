import type { Circuit } from "../../circuit";
import { formatV } from "../../quantity";
import { label, round } from "../help";
import type { Found, Fix, Rule } from "../types";
import { type SwitchAt, switchesOf, isFollower, fetFor, railOf, swapFix } from "../loads";

/** A module that comes with another transistor: the choice that a smaller drive switches on. */
const typeFix = (c: Circuit, s: SwitchAt): Fix[] => {
  const option = c.netlist.instance(s.el.ref)?.part.options.find((o) => o.key === "type");
  const entry = c.project.parts.find((p) => p.ref === s.el.ref);
  if (option?.kind !== "choice" || !entry || (entry.options?.type ?? option.default) === option.default) return [];
  return [
    {
      id: "type",
      label: `Take the kind with a ${option.choices.find((x) => x.value === option.default)?.label ?? option.default}`,
      edits: [{ type: "setOption", ref: s.el.ref, key: "type", value: option.default }],
    },
  ];
};

export const loadGateDrive: Rule = {
  rule: "load.gate-drive",
  says: "A MOSFET is on for certain only at a gate voltage for which its data sheet gives an on-resistance.",
  check: (c) =>
    switchesOf(c).flatMap((s): Found[] => {
      if (s.def.kind !== "fet" || s.def.type !== "n" || !s.gate || s.loads.some((l) => isFollower(c, s, l))) return [];
      const least = Math.min(...s.def.on.map((x) => x.Vgs));
      if (s.gate.V.min >= least - 1e-9) return [];
      const better = fetFor(c, s.gate.V, s.peak_A, railOf(c, s.loads));
      return [
        {
          rule: "load.gate-drive",
          severity: "fault",
          at: [s.el.ref, `${s.gate.ref}.${s.gate.pin}`],
          message: `${label(c, s.el.ref)} is only sure to switch on with ${formatV(least)} at its gate; ${s.gate.ref}.${s.gate.pin} gives at least ${formatV(s.gate.V.min)}. It would stay half open and get hot.`,
          evidence: { gate_V: round(s.gate.V.min), needs_V: least },
          fixes: () => [...(better ? swapFix(c, s, better) : []), ...typeFix(c, s)],
        },
      ];
    }),
};
