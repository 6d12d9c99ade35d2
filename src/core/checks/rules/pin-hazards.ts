import { moveFix } from "../help";
import type { Found, Rule, Severity } from "../types";
import { hostPin, place, needOf } from "../pins";

/** Hazards of a pin that its user should know, by kind: the rule that speaks for each. */
const HAZARD_RULES: [kind: string, rule: string, severity: Severity, says: string][] = [
  [
    "console",
    "pin.usb-serial",
    "risk",
    "Pins of the upload and console port carry its traffic: parts on them disturb uploading.",
  ],
  ["reserved", "pin.reserved", "stop", "Some pins are taken by the board itself."],
  ["reset", "pin.reset", "stop", "The reset pin restarts the chip and can't be used as an input or output."],
  ["onboard", "pin.onboard", "note", "Some pins already carry a part on the board."],
  ["pad", "pin.pad", "note", "Some pins are pads under the board: a wire is soldered to them, no socket goes there."],
  ["bootlog", "pin.bootlog", "risk", "Some pins print text while the chip starts."],
];

const WHAT_TO_DO: Record<string, string> = {
  console: "Take that wire off while uploading, or move it.",
  reserved: "Use another pin.",
  reset: "Use another pin.",
  pad: "Solder a thin wire there before the board is built in.",
  onboard: "Expect it to act along.",
};

const hazardRule = ([kind, rule, severity, says]: (typeof HAZARD_RULES)[number]): Rule => ({
  rule,
  says,
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      const h = hostPin(c, b)?.hazards?.find((x) => x.kind === kind);
      if (!h) return [];
      return [
        {
          rule,
          severity,
          at: place(b),
          message: `${b.ref}.${b.pin} is on ${b.host}.${b.hostPin}: ${h.says}. ${WHAT_TO_DO[kind] ?? ""}`.trim(),
          evidence: { pin: b.hostPin },
          fixes: () => moveFix(c, b.ref, b.pin, b.host, needOf(c, b)),
        },
      ];
    }),
});

export const pinHazardsRules: readonly Rule[] = HAZARD_RULES.map(hazardRule);
