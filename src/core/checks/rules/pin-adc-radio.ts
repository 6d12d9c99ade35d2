import { moveFix } from "../help";
import type { Found, Rule } from "../types";
import { muted, place, needOf } from "../pins";

export const pinAdcRadio: Rule = {
  rule: "pin.adc-radio",
  says: "Some converters belong to the radio while it runs.",
  check: (c) =>
    c.netlist.bindings
      .filter((b) => muted(c, b))
      .map((b): Found => ({
        rule: "pin.adc-radio",
        severity: "fault",
        at: place(b),
        message: `${b.ref}.${b.pin} is measured at ${b.host}.${b.hostPin}, whose converter can't be used while the radio runs, and this project uses the radio.`,
        evidence: { pin: b.hostPin },
        fixes: () => moveFix(c, b.ref, b.pin, b.host, needOf(c, b)),
      })),
};
