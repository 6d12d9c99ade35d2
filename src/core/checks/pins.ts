/** For the rules: what several rules about pins read. */
import { effectiveNeed, hostFacts } from "../plan/assign";
import { findPin, type Pin } from "../parts/catalogue";
import type { Circuit } from "../circuit";
import type { Binding } from "../circuit/netlist";

export const hostPin = (c: Circuit, b: Binding): Pin | undefined =>
  findPin(c.netlist.instance(b.host)!.part, b.hostPin);

export const place = (b: Binding) => [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`];

export const needOf = (c: Circuit, b: Binding) =>
  effectiveNeed(c.netlist, b.ref, findPin(c.netlist.instance(b.ref)!.part, b.pin)!);

/** What is to be known of the host for a binding: its radio, and whether the program may do this bus. */
export const factsOf = (c: Circuit, b: Binding) => {
  const groups = c.netlist.instance(b.ref)!.part.groups;
  const group = groups.find((g) => g.kind === b.need.kind && Object.values(g.pins).includes(b.pin));
  return hostFacts(c.project, c.netlist, b.host, b.ref, group?.id);
};

/** A converter that can't be used while the radio runs. */
export const muted = (c: Circuit, b: Binding) =>
  b.need.kind === "adc" &&
  factsOf(c, b).radio === true &&
  (hostPin(c, b)?.hazards?.some((h) => h.kind === "adc-radio") ?? false);
