import { nextUp } from "../quantity";
import { assign } from "../plan/assign";
import type { Circuit } from "../circuit";
import { findPin } from "../parts/catalogue";
import { patternById, PATTERNS } from "../patterns";
import { driverParts } from "../firmware/pins";
import type { Extension } from "./types";

const MOST_PINS = 6;

/** What fast learners go on with: the pattern's own ways, then what this very plan leaves room for. */
export function extensionsOf(c: Circuit): Extension[] {
  const pattern = c.project.pattern === undefined ? undefined : patternById(c.project.pattern, PATTERNS);
  const own = (pattern?.onward ?? []).map((o): Extension => ({
    says: o.says,
    takes: o.parts.map((p) => c.catalogue.get(p.part)?.name ?? p.label),
  }));
  const spare = assign(c.project, c.catalogue).spare;
  const several = c.netlist.expanded.hosts.length > 1;
  // Only what can drive a light, and is not needed while the board starts.
  const outputs = spare.flatMap((s) => {
    const pin = findPin(c.netlist.instance(s.host)!.part, s.pin);
    const drives = pin?.offers?.some((o) => o.kind === "digital" && o.out) === true && !pin.hazards?.length;
    return drives ? [several ? `${s.pin} of ${c.netlist.instance(s.host)!.label}` : s.pin] : [];
  });
  const lights = c.leds.filter((l) => l.I && l.R > 0);
  const rules = c.project.rules ?? [];
  const host = c.netlist.expanded.hosts[0];
  const contacts = host
    ? driverParts(c, host, "sketch", (b) => b).filter((p) => p.inst.part.id === "discrete/button")
    : [];
  return [
    ...own,
    ...(outputs.length
      ? [
          {
            says: `Plan one more light yourself: ${outputs.slice(0, MOST_PINS).join(", ")}${outputs.length > MOST_PINS ? ` and ${outputs.length - MOST_PINS} more` : ""} are free. Add it in the app only when your own drawing is done, and compare.`,
            takes: ["Light, any colour", "Resistor"],
          },
        ]
      : []),
    ...lights.slice(0, 1).map((l): Extension => ({
      says: `Take a resistor of ${nextUp(2 * l.R)} Ω in place of ${Math.round(l.R)} Ω at ${c.netlist.instance(l.ref)?.label ?? l.ref}. Foretell the current, then measure the volts across it and work it out.`,
      takes: ["Resistor"],
    })),
    ...(rules.length && contacts.length
      ? [
          {
            says: `Change one sentence at Firmware: let ${contacts[0]!.inst.label} do something other than it does now, try it there first, then upload it.`,
            takes: [],
          },
        ]
      : []),
  ];
}
