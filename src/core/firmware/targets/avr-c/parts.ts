import { findPin, type Pin } from "../../../parts/catalogue";
import type { Circuit } from "../../../circuit";
import { identifier } from "../../pins";
import { refsOf } from "../../../project";
import { restOf } from "../../rest";
import type { DriverPart } from "../../types";
import { talkOf, type Talk } from "./devices";
import { SWITCHES } from "./switches";

/** What plain C does with a pin of a part. */
export type Line =
  | { kind: "light"; p: DriverPart; label: string; name: string; lit: 0 | 1 }
  /** Switches something: on only while a contact says so, never by itself. */
  | { kind: "load"; p: DriverPart; label: string; name: string; lit: 0 | 1 }
  /** Lights on one wire: told how many of them are lit. */
  | { kind: "strip"; p: DriverPart; label: string; name: string }
  | { kind: "contact"; p: DriverPart; label: string; name: string; pull: boolean; pressed: 0 | 1 }
  | { kind: "voltage"; p: DriverPart; label: string; name: string; channel: number }
  | { kind: "rest"; p: DriverPart; label: string; name: string; level: 0 | 1 | "float" }
  /** Set once and told nowhere: a pin of a part that is talked to. */
  | { kind: "quiet"; p: DriverPart; label: string; name: string; level: 0 | 1 | "pull" };

const READ = new Set(["digital-in", "digital-io", "interrupt"]);

/** Kinds of part that plain C works whole; what another kind has is put to rest or read. */
const OF: Record<string, (p: DriverPart, x: Pin, name: string) => Line> = {
  ws2812b: (p, x, name) => ({ kind: "strip", p, label: x.label, name }),
  led: (p, x, name) => ({ kind: "light", p, label: x.label, name, lit: p.activeLow ? 0 : 1 }),
  button: (p, x, name) => ({
    kind: "contact",
    p,
    label: x.label,
    name,
    pull: p.pull === "internal",
    pressed: p.activeLow ? 0 : 1,
  }),
};

/** The converter's channel behind a pin of a part. */
function channelOf(c: Circuit, host: string, p: DriverPart, label: string): number | null {
  if (!p.has(label)) return null;
  const offer = findPin(c.netlist.instance(host)!.part, p.printed(label))?.offers?.find((o) => o.kind === "adc");
  return offer?.kind === "adc" ? offer.channel : null;
}

/** The parts of a chip that its program talks to, with their data. */
export const talksOf = (c: Circuit, host: string, parts: readonly DriverPart[]): Talk[] => {
  const ruled = new Set((c.project.rules ?? []).flatMap(refsOf));
  return parts.flatMap((p) => talkOf(p, (label) => channelOf(c, host, p, label), ruled.has(p.ref)) ?? []);
};

/** The pins of all parts of a chip, as plain C works them. Buses are left alone: their parts are in the pins file. */
export function linesOf(c: Circuit, host: string, parts: readonly DriverPart[]): Line[] {
  const talked = new Set(talksOf(c, host, parts).map((t) => t.p.inst.ref));
  return parts.flatMap((p) =>
    p.inst.part.pins.flatMap((x): Line[] => {
      // What hangs on another part is not worked here, as that part is not.
      if (!x.need || !p.has(x.label) || p.through?.has(x.label)) return [];
      const several = p.inst.part.pins.filter((y) => y.need && p.has(y.label)).length > 1;
      const name = several ? `${p.id}_${identifier(x.label, "pin").toLowerCase()}` : p.id;
      const rest = restOf(p, x.label);
      // What is talked to is put to rest, and its inputs are held; the rest its data say.
      if (talked.has(p.inst.ref)) {
        if (p.pulled.has(x.label)) return [{ kind: "quiet", p, label: x.label, name, level: "pull" }];
        return (x.need.kind === "digital-out" || x.need.kind === "pwm") && rest !== "float"
          ? [{ kind: "quiet", p, label: x.label, name, level: rest }]
          : [];
      }
      const whole = OF[p.inst.part.bringup!.driver];
      if (whole) return [whole(p, x, name)];
      if (x.need.kind === "adc") {
        const channel = channelOf(c, host, p, x.label);
        return channel === null ? [] : [{ kind: "voltage", p, label: x.label, name, channel }];
      }
      if (READ.has(x.need.kind))
        return [{ kind: "contact", p, label: x.label, name, pull: p.pulled.has(x.label), pressed: 1 }];
      if (SWITCHES.has(p.inst.part.id) && rest !== "float")
        return [{ kind: "load", p, label: x.label, name, lit: rest ? 0 : 1 }];
      return x.need.kind === "digital-out" || x.need.kind === "pwm"
        ? [{ kind: "rest", p, label: x.label, name, level: rest }]
        : [];
    }),
  );
}
