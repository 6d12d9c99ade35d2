import { findPin, type Pin } from "../../../parts/catalogue";
import type { Circuit } from "../../../circuit";
import { identifier } from "../../pins";
import { restOf } from "../../rest";
import type { DriverPart } from "../../types";

/** What plain C does with a pin of a part. */
export type Line =
  | { kind: "light"; p: DriverPart; label: string; name: string; lit: 0 | 1 }
  /** Switches something: on only while a contact says so, never by itself. */
  | { kind: "load"; p: DriverPart; label: string; name: string; lit: 0 | 1 }
  | { kind: "contact"; p: DriverPart; label: string; name: string; pull: boolean; pressed: 0 | 1 }
  | { kind: "voltage"; p: DriverPart; label: string; name: string; channel: number }
  | { kind: "rest"; p: DriverPart; label: string; name: string; level: 0 | 1 | "float" };

const READ = new Set(["digital-in", "digital-io", "interrupt"]);

/** Kinds of part that plain C works whole; what another kind has is put to rest or read. */
const OF: Record<string, (p: DriverPart, x: Pin, name: string) => Line> = {
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

/** One pin that switches something. */
const SWITCHES = new Set([
  "discrete/nmos-ao3400",
  "discrete/nmos-irlz44n",
  "discrete/npn-2n2222",
  "discrete/npn-bc547",
  "module/buzzer-active",
  "module/mosfet-switch",
  "module/optocoupler-pc817",
  "module/relay-1",
]);

/** The pins of all parts of a chip, as plain C works them. Buses are left alone: their parts are in the pins file. */
export function linesOf(c: Circuit, host: string, parts: readonly DriverPart[]): Line[] {
  const board = c.netlist.instance(host)!.part;
  return parts.flatMap((p) =>
    p.inst.part.pins.flatMap((x): Line[] => {
      // What hangs on another part is not worked here, as that part is not.
      if (!x.need || !p.has(x.label) || p.through?.has(x.label)) return [];
      const several = p.inst.part.pins.filter((y) => y.need && p.has(y.label)).length > 1;
      const name = several ? `${p.id}_${identifier(x.label, "pin").toLowerCase()}` : p.id;
      const whole = OF[p.inst.part.bringup!.driver];
      if (whole) return [whole(p, x, name)];
      if (x.need.kind === "adc") {
        const offer = findPin(board, p.printed(x.label))?.offers?.find((o) => o.kind === "adc");
        return offer?.kind === "adc" ? [{ kind: "voltage", p, label: x.label, name, channel: offer.channel }] : [];
      }
      if (READ.has(x.need.kind))
        return [{ kind: "contact", p, label: x.label, name, pull: p.pulled.has(x.label), pressed: 1 }];
      const rest = restOf(p, x.label);
      if (SWITCHES.has(p.inst.part.id) && rest !== "float")
        return [{ kind: "load", p, label: x.label, name, lit: rest ? 0 : 1 }];
      return x.need.kind === "digital-out" || x.need.kind === "pwm"
        ? [{ kind: "rest", p, label: x.label, name, level: rest }]
        : [];
    }),
  );
}
