import { colourOf } from "./looks";
import type { Circuit } from "../circuit";
import { findPin } from "../parts/catalogue";
import { farOf, linkAwg, linkCm, splitEnd, type Link } from "../project";

/** One wire of the project, as the table of wires shows it. */
export interface HandWire {
  from: string;
  to: string;
  fromLabel: string;
  toLabel: string;
  net: string;
  /** What it is for: a need, supply, ground, a cable, a loose part. */
  why: string;
  by: "plan" | "hand" | "fix" | "unsaid";
  locked: boolean;
  cable: boolean;
  cm: number | null;
  awg: number | null;
  colour: string;
  /** Whether length, gauge and colour are this wire's own. */
  own: { cm: boolean; awg: boolean; colour: boolean };
}

function whyOf(c: Circuit, l: Link): string {
  for (const end of [l.from, l.to]) {
    const b = c.netlist.bindings.find((x) => `${x.ref}.${x.pin}` === end || `${x.host}.${x.hostPin}` === end);
    if (b && [l.from, l.to].some((e) => e === `${b.ref}.${b.pin}` || farOf(l, end) === `${b.ref}.${b.pin}`))
      return `${b.need.kind}${b.need.role ? ` ${b.need.role}` : ""}`;
  }
  const net = c.netlist.netOf(l.from);
  return net?.kind === "ground" ? "ground" : net?.kind === "supply" ? "supply" : "";
}

/** Every wire of the project, in the order in which it was made. */
export function handWires(c: Circuit): HandWire[] {
  const label = (end: string) => {
    const { ref, pin } = splitEnd(end);
    const i = c.netlist.instance(ref);
    const called = i && findPin(i.part, pin)?.called;
    return [i && i.label !== i.ref ? i.label : "", called ?? ""].filter(Boolean).join(", ");
  };
  return c.project.links.map((l) => {
    const cable = c.netlist.wires.some(
      (w) => w.cable && `${w.from.ref}.${w.from.pin}` === l.from && `${w.to.ref}.${w.to.pin}` === l.to,
    );
    return {
      from: l.from,
      to: l.to,
      fromLabel: label(l.from),
      toLabel: label(l.to),
      net: c.netlist.netOf(l.from)?.name ?? "",
      why: cable ? "cable" : whyOf(c, l),
      by: l.by ?? "unsaid",
      locked: l.locked ?? false,
      cable,
      cm: cable ? null : linkCm(c.project, l),
      awg: cable ? null : (linkAwg(c.project, l) ?? null),
      colour: cable ? "" : colourOf(c, l),
      own: { cm: l.cm !== undefined, awg: l.awg !== undefined, colour: l.colour !== undefined },
    };
  });
}
